/** A file that somebody has chosen, as text; the error is a sentence. */
import { fail, type Result } from '../../core/base/result';
import { decodeText, MAX_FILE, tooLarge } from '../../core/exchange/text';

export const readText = async (file: File): Promise<Result<string, string>> =>
  file.size > MAX_FILE ? fail(tooLarge(file.size)) : decodeText(new Uint8Array(await file.arrayBuffer()));
