/** Stands in for a worker of jobs: what it does with its job is what the payload says. */
import { parentPort, workerData } from "node:worker_threads";
import Database from "better-sqlite3";

const db = new Database(workerData.databaseFile);
const end = (id, state) => {
  db.prepare("UPDATE jobs SET state = ? WHERE id = ?").run(state, id);
  db.close();
  parentPort.close();
};

let id = "";
parentPort.on("message", (order) => {
  if (order === "cancel") return end(id, "cancelled");
  if (order === "give back") return end(id, "queued");
  id = order.run;
  const { payload } = db.prepare("SELECT payload FROM jobs WHERE id = ?").get(id);
  switch (JSON.parse(payload).does) {
    case "ends":
      return end(id, "done");
    case "throws":
      throw new Error("the picture is broken");
    case "cannot write":
      parentPort.postMessage({ unwritten: { state: "done", result: { frames: 3 } } });
      return parentPort.close();
    case "vanishes":
      return process.exit();
  }
});
