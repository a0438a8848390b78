/**
 * `value!` hides an absence. Only what an index reaches is taken as there (`list[index]!`), where a numeric
 * loop has just counted up to it.
 */
const noHiddenAbsence = {
  create: (context) => ({
    TSNonNullExpression(node) {
      const { expression } = node;
      if (expression.type === 'MemberExpression' && expression.computed) return;
      context.report({
        node,
        message: '`!` hides an absence: handle it, or let the type say that it cannot be. Only `list[index]!` stays.',
      });
    },
  }),
};

export default { meta: { name: 'suvok' }, rules: { 'no-hidden-absence': noHiddenAbsence } };
