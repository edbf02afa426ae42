import { Wordmark } from "~/components/common/wordmark";
import { JobStatus, type JobView } from "~/components/library/job-status";

/** The desk of a film whose light copy is not there yet. */
export function DeskWaiting({ name, jobs }: { name: string; jobs: JobView[] }) {
  return (
    <div className="min-h-full">
      <header className="border-b border-line bg-panel px-4 py-2.5">
        <Wordmark />
      </header>
      <main className="mx-auto mt-24 max-w-md px-6">
        <h1 className="font-display text-2xl font-semibold">{name}</h1>
        <p className="mt-2 mb-5 text-soft">
          The film is being made ready: first a light copy that plays at once, then its shots and who is in them. You
          can leave this page; the work goes on.
        </p>
        <JobStatus jobs={jobs} />
      </main>
    </div>
  );
}
