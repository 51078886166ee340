//! `upper-lobe sensitivity`, `choose`, `score` and `calibrate`: the work of seconds that the screen asks for, run to its end.

use super::REFUSED;
use super::analyze::{candidate_of, print, read};
use clap::Args;
use std::io::IsTerminal;
use std::path::PathBuf;
use std::process::ExitCode;
use std::sync::Arc;
use upper_lobe_core::analysis::{
    Build, CalibrationJob, ChooseJob, ChooseStep, Faults, Halted, Job, ScoreJob, ScoreStep, SensitivityJob, Stages,
    Watch,
};

/// A document.
#[derive(Debug, Args)]
pub struct Options {
    /// The build document; `-` reads standard input.
    file: PathBuf,
}

/// A document and one of its candidates.
#[derive(Debug, Args)]
pub struct CandidateOptions {
    /// The build document; `-` reads standard input.
    file: PathBuf,
    /// The candidate with this id; the first when absent.
    #[arg(long)]
    candidate: Option<String>,
}

/// What to choose.
#[derive(Debug, Args)]
pub struct ChooseOptions {
    #[command(flatten)]
    of: CandidateOptions,
    /// Look at what is beside the cam too: rockers, compression, runners and primaries, each by itself.
    #[arg(long)]
    hardware: bool,
}

/// Prints what each decision is worth.
pub fn sensitivity(options: &CandidateOptions) -> anyhow::Result<ExitCode> {
    let text = read(&options.file)?;
    finish(document(&text).and_then(|build| {
        let candidate = candidate_of(&build, options.candidate.as_deref());
        Ok(SensitivityJob::new(&build, &candidate, Arc::default())?)
    }))
}

/// Prints what there is to choose.
pub fn choose(options: &ChooseOptions) -> anyhow::Result<ExitCode> {
    let text = read(&options.of.file)?;
    let job = |build: Build| {
        let job = ChooseJob::new(&build, options.of.candidate.as_deref(), Arc::default())?;
        Ok(job.map(|job| job.with_hardware(options.hardware)))
    };
    finish_telling(document(&text).and_then(job), |step: ChooseStep| {
        format!("{}: {} of {}", step.doing, step.done, step.of)
    })
}

/// Prints the score board of every candidate.
pub fn score(options: &Options) -> anyhow::Result<ExitCode> {
    let text = read(&options.file)?;
    let job = |build: Build| Ok(Ok(ScoreJob::new(&build, Arc::default())?));
    finish_telling(document(&text).and_then(job), |step: ScoreStep| {
        format!("computing candidates: {} of {}", step.done, step.of)
    })
}

/// Prints the constants fitted to the pull in the document.
pub fn calibrate(options: &Options) -> anyhow::Result<ExitCode> {
    let text = read(&options.file)?;
    finish(document(&text).and_then(|build| Ok(CalibrationJob::new(&build, Arc::<Stages>::default())?)))
}

pub(super) fn document(text: &[u8]) -> Result<Build, Faults> {
    Build::read(&String::from_utf8_lossy(text))
}

/// Runs a job and prints its result; the faults or what it lacks with status 2.
fn finish<J: Job>(job: Result<Result<J, Halted>, Faults>) -> anyhow::Result<ExitCode>
where
    J::Done: serde::Serialize,
{
    finish_telling(job, |_| String::new())
}

/// The same, each step told on a terminal as `words` say it.
pub(super) fn finish_telling<J: Job>(
    job: Result<Result<J, Halted>, Faults>,
    words: impl Fn(J::Step) -> String + Sync,
) -> anyhow::Result<ExitCode>
where
    J::Done: serde::Serialize,
{
    let job = match job {
        Ok(job) => job,
        Err(faults) => {
            print(&faults)?;
            return Ok(ExitCode::from(REFUSED));
        }
    };
    let is_watched = std::io::stderr().is_terminal();
    let tell = |step: J::Step| {
        let words = words(step);
        if is_watched && !words.is_empty() {
            eprint!("\r\x1b[K{words}");
        }
    };
    let done = job.and_then(|job| job.run(&Watch { report: &tell, stop: &|| false }));
    if is_watched {
        eprint!("\r\x1b[K");
    }
    match done {
        Ok(done) => {
            print(&*done)?;
            Ok(ExitCode::SUCCESS)
        }
        Err(Halted::Lacks { reason, needs }) => {
            print(&serde_json::json!({ "reason": reason, "needs": needs }))?;
            Ok(ExitCode::from(REFUSED))
        }
        Err(Halted::Stopped) => anyhow::bail!("stopped before its end"),
    }
}
