import { StyleSheet } from '@react-pdf/renderer';
import { paperColours } from '../../core/scene/paper-colours.ts';
import { letters } from './pdf-fonts.ts';

/** Left and right of a page's words, points. */
export const margin = 46;

export type Look = ReturnType<typeof looks>;

/** @param size of letters, 1 for the usual one */
export function looks(size: number) {
  const colour = (name: string) => paperColours[name]!;
  const pt = (usual: number) => usual * size;
  const quiet = { color: colour('--soft'), fontSize: pt(8.5), lineHeight: 1.4 };
  const strong = { fontWeight: 600 as const };
  return StyleSheet.create({
    page: {
      fontFamily: letters as never,
      fontSize: pt(9.5),
      color: colour('--ink'),
      paddingTop: 40,
      paddingBottom: 52,
      paddingHorizontal: margin,
    },
    head: { flexDirection: 'row', justifyContent: 'space-between', gap: 20, marginBottom: pt(12), ...quiet },
    // Text that is made anew for each page is lost where a height of lines reaches it.
    foot: {
      position: 'absolute',
      bottom: 26,
      right: margin,
      left: margin,
      textAlign: 'right',
      color: colour('--soft'),
      fontSize: pt(8.5),
    },
    block: { marginBottom: pt(13), fontSize: pt(9.5), lineHeight: 1.4 },
    title: { ...strong, fontSize: pt(10), marginBottom: pt(3) },
    answer: { fontWeight: 700, fontSize: pt(20), lineHeight: 1.16, marginBottom: pt(7), maxWidth: 460 },
    lead: { fontSize: pt(10), maxWidth: 470 },
    figures: {
      flexDirection: 'row',
      flexWrap: 'wrap',
      gap: 18,
      paddingVertical: pt(8),
      borderTop: `1.5 solid ${colour('--ink')}`,
      borderBottom: `0.75 solid ${colour('--rule')}`,
    },
    figure: { flexGrow: 1, flexShrink: 1, flexBasis: 120 },
    large: { fontWeight: 700, fontSize: pt(21), lineHeight: 1.2 },
    sign: { fontSize: pt(14) },
    soft: { color: colour('--soft') },
    quiet,
    paragraph: { marginBottom: pt(3) },
    tableHead: { flexDirection: 'row', paddingBottom: pt(2.5) },
    row: { flexDirection: 'row', paddingVertical: pt(3), borderTop: `0.75 solid ${colour('--rule')}` },
    note: { ...quiet, marginTop: pt(3) },
    item: { flexDirection: 'row', marginBottom: pt(2.5) },
    itemText: { flexGrow: 1, flexShrink: 1, flexBasis: 0 },
    quietItem: { flexGrow: 1, flexShrink: 1, flexBasis: 0, color: colour('--soft') },
    photos: { flexDirection: 'row', flexWrap: 'wrap', gap: 14 },
    photo: { width: 155 },
    picture: { width: 155, height: 116, objectFit: 'contain', objectPosition: 'left', marginBottom: 3 },
    gain: { ...strong, color: colour('--gain') },
    loss: { ...strong, color: colour('--loss') },
    warning: { ...strong, color: colour('--stop') },
  });
}
