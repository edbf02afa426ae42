import { TriangleAlert } from "lucide-react";
import { useFetcher } from "react-router";
import { Button } from "~/components/common/button";
import { ProgressBar, describeLeft } from "~/components/common/progress-bar";

export interface JobView {
  id: string;
  kind: string;
  state: string;
  step: string;
  progress: number;
  error: string | null;
  secondsLeft: number | null;
}

const WAITING: Record<string, string> = {
  proxy: "Light copy: waiting",
  analyse: "Analysis: waiting",
  follow: "Mark: waiting",
};

/** What is being done to a film: each unfinished job with its progress, or what went wrong and a way on. */
export function JobStatus({ jobs }: { jobs: JobView[] }) {
  const fetcher = useFetcher();
  const open = jobs.filter((job) => job.state !== "done" && job.state !== "cancelled");
  if (open.length === 0) return null;
  return (
    <ul className="flex flex-col gap-2.5">
      {open.map((job) =>
        job.state === "failed" ? (
          <li key={job.id} className="text-xs" role="alert">
            <p className="flex gap-1.5 text-warn">
              <TriangleAlert className="mt-px size-3.5 shrink-0" aria-hidden />
              {job.error}
            </p>
            <fetcher.Form method="post" action="/?index" className="mt-1.5">
              <input type="hidden" name="intent" value="retry" />
              <input type="hidden" name="jobId" value={job.id} />
              <Button type="submit">Start it again</Button>
            </fetcher.Form>
          </li>
        ) : (
          <li key={job.id}>
            <ProgressBar
              label={job.step || WAITING[job.kind] || "Waiting"}
              share={job.progress}
              left={describeLeft(job.secondsLeft)}
            />
          </li>
        ),
      )}
    </ul>
  );
}
