import type { Worker } from "node:worker_threads";
import type { Box, Size } from "~/core/geometry/box";
import type { YuvImage } from "~/core/image/yuv-image";
import { startWorker } from "../worker-thread.server";
import type { ReadLine } from "~/core/subjects/text/read-text";
import type { DetectAnswer, DetectRequest, DetectResult, Found } from "./detect-worker";

/** What is asked, without the number that tells its answer. */
type Asked<T = DetectRequest> = T extends DetectRequest ? Omit<T, "id"> : never;

interface Waiting {
  resolve: (result: DetectResult) => void;
  reject: (error: Error) => void;
}

/** The detectors, in a thread of their own: running a model blocks the calling thread. */
export class Detector {
  private readonly worker: Worker;
  private readonly ended: Promise<void>;
  private readonly waiting = new Map<number, Waiting>();
  private serial = 0;

  /** @param picture size of the pictures */
  constructor(picture: Size) {
    this.worker = startWorker("detect-worker.js", "app/media/detect/worker-dev.mjs", { picture });
    this.worker.on("message", (answer: DetectAnswer) => {
      const waiting = this.waiting.get(answer.id);
      this.waiting.delete(answer.id);
      if ("error" in answer) waiting?.reject(new Error(answer.error));
      else waiting?.resolve(answer.result);
    });
    this.worker.on("error", (error) => this.fail(error instanceof Error ? error : new Error(String(error))));
    this.ended = new Promise((resolve) => {
      this.worker.on("exit", () => {
        this.fail(new Error("the detectors have ended"));
        resolve();
      });
    });
  }

  private fail(error: Error): void {
    for (const { reject } of this.waiting.values()) reject(error);
    this.waiting.clear();
  }

  /** @returns what the worker answers to that kind of request */
  private ask<T extends DetectResult>(asked: Asked): Promise<T> {
    const request = { ...asked, id: this.serial++ } as DetectRequest;
    const answer = new Promise<DetectResult>((resolve, reject) => this.waiting.set(request.id, { resolve, reject }));
    this.worker.postMessage(request);
    return answer as Promise<T>;
  }

  /**
   * Detects persons and objects, and faces anywhere, if asked to; otherwise faces near earlier ones. Pictures are processed
   * in the order of the calls.
   * @param text the part in which lines of text are looked for as well, in whole multiples of the models' grain
   */
  detect(image: YuvImage, objects: boolean, text: Box | null): Promise<Found> {
    return this.ask({ image, objects, text });
  }

  /**
   * Finds and reads the lines of text in parts of a picture of any size.
   * @returns the lines of each part
   */
  read(image: YuvImage, parts: Box[]): Promise<ReadLine[][]> {
    return this.ask({ image, read: parts });
  }

  /**
   * Ends the thread after its present work. It is not terminated: stopping a running model would take the whole process
   * with it.
   */
  async dispose(): Promise<void> {
    this.worker.postMessage("end");
    await this.ended;
  }
}
