import { Document, Page, Path, renderToBuffer, Svg, Text, View } from '@react-pdf/renderer';
import { signaturePaths, signatureSize } from '../../core/consents/signature.ts';
import { letters, registerFonts } from './pdf-fonts.ts';

/** A consent as it was signed, as far as its page tells it. */
export interface SignedPage {
  title: string;
  text: string;
  version: number;
  name: string;
  signedAt: string;
  vehicle: string;
  strokes: readonly (readonly (readonly [number, number, number])[])[];
}

const look = {
  page: { padding: 56, fontFamily: letters as unknown as string, fontSize: 11, lineHeight: 1.5, color: '#1b2126' },
  title: { fontSize: 20, fontWeight: 700 as const, marginBottom: 18 },
  small: { fontSize: 9, color: '#565e66' },
};

/** A signed consent on one page, its text and its hand as they were. */
export async function consentPdf({
  title,
  text,
  version,
  name,
  signedAt,
  vehicle,
  strokes,
}: SignedPage): Promise<Buffer> {
  registerFonts();
  const { width, height } = signatureSize;
  return renderToBuffer(
    <Document title={title} creator="Suvok" producer="Suvok">
      <Page size="A4" style={look.page}>
        <Text style={look.small}>{vehicle}</Text>
        <Text style={look.title}>{title}</Text>
        {text.split(/\n+/).map((paragraph) => (
          <Text key={paragraph} style={{ marginBottom: 8 }}>
            {paragraph}
          </Text>
        ))}
        <View style={{ marginTop: 28 }}>
          <Svg viewBox={`0 0 ${width} ${height}`} width={300} height={(300 * height) / width}>
            {signaturePaths(strokes).map((path) => (
              <Path key={path} d={path} fill="#1b2126" />
            ))}
          </Svg>
          <Text style={{ borderTop: 1, paddingTop: 4, width: 300 }}>{name}</Text>
          <Text style={look.small}>
            Signed {signedAt.slice(0, 16).replace('T', ' ')} UTC, version {version} of the text
          </Text>
        </View>
      </Page>
    </Document>,
  );
}
