/** A worker that never says anything, for tests that are not about findings. */
export class WorkerClient {
  load() {}
  advance() {
    return 1;
  }
  close() {}
}
