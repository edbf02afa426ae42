import { TriangleAlert, X } from "lucide-react";
import { useFetcher } from "react-router";
import { Button, IconButton } from "~/components/common/button";
import { ProgressBar, describeLeft } from "~/components/common/progress-bar";
import type { JobKind, JobView } from "~/core/film/film-status";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.jobStatus;

const WAITING: Record<JobKind, string> = {
  join: t.clipsWaiting,
  proxy: t.proxyWaiting,
  analyse: t.analysisWaiting,
  follow: t.markWaiting,
  match: t.comparisonWaiting,
  render: t.renderWaiting,
};

const CANCELLED: Record<JobKind, string> = {
  join: t.preparingTheClipsWasCancelled,
  proxy: t.theProxyWasCancelled,
  analyse: t.theAnalysisWasCancelled,
  follow: t.followingTheMarkWasCancelled,
  match: t.theComparisonWasCancelled,
  render: t.theRenderWasCancelled,
};

function ChangeJob({ jobId, intent, what }: { jobId: string; intent: "cancel" | "retry"; what?: string }) {
  const fetcher = useFetcher();
  const busy = fetcher.state !== "idle";
  const submit = () => void fetcher.submit({ intent, jobId }, { method: "post", action: "/?index" });
  return intent === "cancel" ? (
    <IconButton label={busy ? t.stopping : t.cancel(what ?? t.this)} disabled={busy} onClick={submit}>
      <X className="size-4" aria-hidden />
    </IconButton>
  ) : (
    <Button className="mt-1.5" disabled={busy} onClick={submit}>
      {t.retry}
    </Button>
  );
}

/** Unfinished jobs of a film with their progress, or what failed and a remedy. */
export function JobStatus({ jobs }: { jobs: JobView[] }) {
  const open = jobs.filter((job) => job.state !== "done");
  if (open.length === 0) return null;
  return (
    <ul className="flex flex-col gap-2.5">
      {open.map((job) =>
        job.state === "failed" || job.state === "cancelled" ? (
          <li key={job.id} className="text-xs" role="alert">
            <p className="flex gap-1.5 text-warn">
              <TriangleAlert className="mt-px size-3.5 shrink-0" aria-hidden />
              {job.error ?? CANCELLED[job.kind]}
            </p>
            <ChangeJob jobId={job.id} intent="retry" />
          </li>
        ) : (
          <li key={job.id} className="flex items-center gap-2">
            <div className="min-w-0 grow">
              <ProgressBar
                label={job.step || WAITING[job.kind]}
                share={job.progress}
                left={describeLeft(job.secondsLeft)}
              />
            </div>
            <ChangeJob jobId={job.id} intent="cancel" what={job.step || WAITING[job.kind]} />
          </li>
        ),
      )}
    </ul>
  );
}
