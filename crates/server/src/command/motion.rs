//! `upper-lobe motion FILE`: a train fitted to the measured valve motion a document holds; with `--play`, what a rig would write of one.

use super::REFUSED;
use super::analyze::{print, read};
use super::long::{document, finish_telling};
use clap::{Args, ValueEnum};
use std::path::PathBuf;
use std::process::ExitCode;
use std::sync::Arc;
use upper_lobe_core::analysis::{MotionFitJob, MotionFitStep, Side, played_motion};

/// Whose motion.
#[derive(Debug, Args)]
pub struct Options {
    /// The build document; `-` reads standard input.
    file: PathBuf,
    /// The candidate with this id; the first with traces when absent, or the first.
    #[arg(long)]
    candidate: Option<String>,
    /// Stand in for a rig instead: print, as CSV, the lift of a valve at these speeds, rpm.
    #[arg(long, value_delimiter = ',', value_name = "RPM,...")]
    play: Vec<f64>,
    /// Which valve the rig looks at.
    #[arg(long, value_enum, default_value_t = Valve::Intake, requires = "play")]
    side: Valve,
    /// Number the rig's train is drawn by.
    #[arg(long, default_value_t = 1, requires = "play")]
    lot: u32,
}

/// One of both.
#[derive(Debug, Clone, Copy, ValueEnum)]
enum Valve {
    Intake,
    Exhaust,
}

/// Prints the fit, or what the rig wrote; faults with status 2.
pub fn run(options: &Options) -> anyhow::Result<ExitCode> {
    let text = read(&options.file)?;
    let candidate = options.candidate.as_deref();
    if options.play.is_empty() {
        let job = document(&text).and_then(|build| MotionFitJob::new(&build, candidate, Arc::default()));
        return finish_telling(job, |step: MotionFitStep| format!("fitting: {} of at most {}", step.done, step.of));
    }
    let side = match options.side {
        Valve::Intake => Side::Intake,
        Valve::Exhaust => Side::Exhaust,
    };
    let played = |build| Ok(played_motion(&build, candidate, side, (&options.play, options.lot))?);
    match document(&text).and_then(played) {
        Ok(csv) => {
            print!("{csv}");
            Ok(ExitCode::SUCCESS)
        }
        Err(faults) => print(&faults).map(|()| ExitCode::from(REFUSED)),
    }
}
