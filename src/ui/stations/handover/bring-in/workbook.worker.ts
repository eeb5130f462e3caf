import ExcelJS from 'exceljs';
import { sheetsOf } from './sheets';
import { storedArchive } from './unpacked';

/** Reads a workbook beside the page: a large one takes a while. */
onmessage = async ({ data }: MessageEvent<Uint8Array>) => {
  try {
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(storedArchive(data).buffer as ArrayBuffer);
    postMessage({ sheets: sheetsOf(book) });
  } catch (error) {
    postMessage({ problem: (error as Error).message });
  }
};
