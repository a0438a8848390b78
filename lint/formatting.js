/** Fewest numbers of what is laid out by hand. */
const fewestNumbers = 8;
const number = /(?<![A-Za-z_\d.])-?\d[\d_.]*(e-?\d+)?/g;

/** Whether a text is a table of numbers, whose columns a reader compares: the one thing that is laid out by hand. */
function isTableOfNumbers(text) {
  return (text.match(number) ?? []).length >= fewestNumbers;
}

/** What is too long is parted and its parts named; it is not kept out of the formatter's hands. */
const formatted = {
  create: (context) => ({
    Program() {
      const { sourceCode } = context;
      for (const comment of sourceCode.getAllComments()) {
        if (!comment.value.includes('prettier-ignore')) continue;
        const { line } = comment.loc.start;
        const own = sourceCode.lines[line - 1] ?? '';
        const laidOut = own.trim().startsWith('//') ? sourceCode.lines.slice(line, line + 9).join('\n') : own;
        if (isTableOfNumbers(laidOut)) continue;
        context.report({
          node: comment,
          message: 'Only a table of numbers is laid out by hand: name the parts of what is long.',
        });
      }
    },
  }),
};

export default { meta: { name: 'suvok-formatting' }, rules: { formatted } };
