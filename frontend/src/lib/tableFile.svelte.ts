/** A table that is read from a CSV file, row by row, and what became of each row. */
import type { RowReport } from "./api/client";

const LARGEST = 900_000;
interface Room {
  problem: string | null;
  attempt(run: () => Promise<void>, status?: string): Promise<boolean>;
}

export class TableFile {
  report = $state.raw<RowReport[] | null>(null);
  #room: Room;
  #read: (text: string) => Promise<{ rows: RowReport[] }>;
  #what: string;

  constructor(room: Room, what: string, read: (text: string) => Promise<{ rows: RowReport[] }>) {
    this.#room = room;
    this.#what = what;
    this.#read = read;
  }

  async take(file: File): Promise<void> {
    this.report = null;
    if (file.size > LARGEST) {
      this.#room.problem = `That file is larger than a ${this.#what} file can be (${LARGEST / 1000} kB).`;
      return;
    }
    const text = await file.text();
    await this.#room.attempt(async () => {
      this.report = (await this.#read(text)).rows;
    }, "The file was read");
  }
}
