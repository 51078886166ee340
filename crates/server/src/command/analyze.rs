//! `upper-lobe analyze FILE`: the same analysis as the screen, as JSON.

use super::REFUSED;
use anyhow::Context;
use clap::Args;
use std::io::{IsTerminal, Read, Write};
use std::path::{Path, PathBuf};
use std::process::ExitCode;
use std::sync::Arc;
use upper_lobe_core::analysis::{
    Analysis, Build, ControlJob, ControlStep, CurveJob, CurveStep, Effort, Faults, Job, MAX_BYTES, PartName, Request,
    Stages, Watch, analyze,
};

/// What to analyse.
#[derive(Debug, Args)]
pub struct Options {
    /// The build document; `-` reads standard input.
    file: PathBuf,
    /// Only the candidate with this id.
    #[arg(long)]
    candidate: Option<String>,
    /// Parts wanted, separated by commas: timing, strip, lift, lobe, train, spring, control, clearance, at_speed, bench, sessions,
    /// assembly, drawing, following, limits, remedies; and breathing, dynamics, phasing and tolerance, which take seconds. All but
    /// those four when absent.
    #[arg(long, value_delimiter = ',')]
    parts: Option<Vec<String>>,
}

/// Prints the analysis, or the faults with status 2.
pub fn run(options: &Options) -> anyhow::Result<ExitCode> {
    let bytes = read(&options.file)?;
    match answer(options, &bytes) {
        Ok(analysis) => {
            print(&analysis)?;
            Ok(ExitCode::SUCCESS)
        }
        Err(faults) => {
            print(&faults)?;
            Ok(ExitCode::from(REFUSED))
        }
    }
}

/// The candidate that is asked for; the first when none is.
pub fn candidate_of(build: &Build, asked: Option<&str>) -> String {
    let first = || build.candidates().first().map(|view| view.id.clone()).unwrap_or_default();
    asked.map_or_else(first, str::to_owned)
}

/// The bytes of a document; `-` reads standard input.
pub fn read(path: &Path) -> anyhow::Result<Vec<u8>> {
    let mut bytes = Vec::new();
    // One byte more than allowed is enough to be refused for its size.
    let most = MAX_BYTES as u64 + 1;
    if path.as_os_str() == "-" {
        std::io::stdin().take(most).read_to_end(&mut bytes).context("reading standard input")?;
    } else {
        let file = std::fs::File::open(path).with_context(|| format!("opening {}", path.display()))?;
        file.take(most).read_to_end(&mut bytes).with_context(|| format!("reading {}", path.display()))?;
    }
    Ok(bytes)
}

fn answer(options: &Options, bytes: &[u8]) -> Result<Analysis, Faults> {
    let build = Build::read(&String::from_utf8_lossy(bytes))?;
    let parts = match &options.parts {
        None => PartName::cheap(),
        Some(words) => words.iter().map(|w| PartName::from_word(w.trim())).collect::<Result<_, _>>()?,
    };
    let stages = Arc::new(Stages::default());
    if std::io::stderr().is_terminal() {
        ahead(&build, options.candidate.as_deref(), &parts, &stages)?;
    }
    let request = Request::of(options.candidate.clone(), parts);
    Ok(analyze(&build, &request, &stages)?)
}

/// Runs what takes seconds before the analysis asks for it, and says on the terminal how far it is; what a job cannot do
/// the analysis says.
fn ahead(build: &Build, id: Option<&str>, parts: &[PartName], stages: &Arc<Stages>) -> Result<(), Faults> {
    let ids: Vec<String> = match id {
        Some(id) => vec![id.to_owned()],
        None => build.candidates().iter().map(|view| view.id.clone()).collect(),
    };
    for id in &ids {
        if parts.contains(&PartName::Breathing) {
            for effort in [Effort::Full, Effort::Fast] {
                let job = CurveJob::new(build, Some(id), (effort, None), Arc::clone(stages))?;
                let told = told(id, "torque", |step: CurveStep| (step.done, step.of));
                if job.is_ok_and(|job| job.run(&Watch { report: &told, stop: &|| false }).is_ok()) {
                    break;
                }
            }
        }
        if parts.contains(&PartName::Dynamics)
            && let Ok(job) = ControlJob::new(build, Some(id), None, (Arc::default(), Arc::clone(stages)))?
        {
            let told = told(id, "trains in motion", |step: ControlStep| (step.done, step.of));
            let _ = job.run(&Watch { report: &told, stop: &|| false });
        }
    }
    // The line is taken off again: what follows is the answer.
    eprint!("\r\x1b[K");
    Ok(())
}

/// Writes one step over the last.
fn told<S>(id: &str, what: &str, of: impl Fn(S) -> (usize, usize) + Sync) -> impl Fn(S) + Sync {
    move |step| {
        let (done, of) = of(step);
        eprint!("\r\x1b[K{id}: {what}, {done} of {of}");
    }
}

/// Whether printing failed because the reader closed the pipe, as `head` does: it has what it wanted.
pub fn has_no_reader(error: &anyhow::Error) -> bool {
    let of = |cause: &(dyn std::error::Error + 'static)| {
        let plain = cause.downcast_ref::<std::io::Error>().map(std::io::Error::kind);
        plain.or_else(|| cause.downcast_ref::<serde_json::Error>()?.io_error_kind())
    };
    error.chain().any(|cause| of(cause) == Some(std::io::ErrorKind::BrokenPipe))
}

/// Prints a text as it is; see [`has_no_reader`].
pub fn print_text(text: &str) -> anyhow::Result<()> {
    Ok(std::io::stdout().lock().write_all(text.as_bytes())?)
}

/// Prints a value as JSON.
pub fn print(value: &impl serde::Serialize) -> anyhow::Result<()> {
    let mut out = std::io::stdout().lock();
    serde_json::to_writer_pretty(&mut out, value)?;
    writeln!(out)?;
    Ok(())
}
