import {
  BarcodeFormat,
  BinaryBitmap,
  DecodeHintType,
  HybridBinarizer,
  MultiFormatReader,
  RGBLuminanceSource,
} from '@zxing/library';

/** A picture to look for a code in: grey from 0 to 255, row by row. */
export interface CodePicture {
  id: number;
  width: number;
  height: number;
  grey: Uint8ClampedArray;
}
/** What was found in it; null for nothing. */
export interface CodeFound {
  id: number;
  text: string | null;
}

const reader = new MultiFormatReader();
reader.setHints(
  new Map<DecodeHintType, unknown>([
    [
      DecodeHintType.POSSIBLE_FORMATS,
      [
        BarcodeFormat.QR_CODE,
        BarcodeFormat.DATA_MATRIX,
        BarcodeFormat.CODE_128,
        BarcodeFormat.CODE_39,
        BarcodeFormat.ITF,
        BarcodeFormat.EAN_13,
        BarcodeFormat.EAN_8,
        BarcodeFormat.UPC_A,
      ],
    ],
    [DecodeHintType.TRY_HARDER, true],
  ]),
);

self.onmessage = ({ data: { id, width, height, grey } }: MessageEvent<CodePicture>) => {
  let text: string | null = null;
  try {
    text = reader
      .decodeWithState(new BinaryBitmap(new HybridBinarizer(new RGBLuminanceSource(grey, width, height))))
      .getText();
  } catch {
    // Nothing to be read in this one; the next comes at once.
  }
  self.postMessage({ id, text } satisfies CodeFound);
};
