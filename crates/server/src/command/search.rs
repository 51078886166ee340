//! `upper-lobe search`: a search run to its end, or a share of one whose parts are merged.

use super::analyze::read;
use super::long::{document, finish_telling};
use clap::Args;
use std::path::PathBuf;
use std::process::ExitCode;
use std::sync::Arc;
use upper_lobe_core::analysis::{
    Build, Decided, Faults, Goal, Halted, SearchJob, SearchSetup, SearchStep, ShelfPart, Stages, Start, UnitSystem,
    read_sheet,
};

/// What to search for, and with what.
#[derive(Debug, Args)]
pub struct Options {
    /// The build document; `-` reads standard input.
    file: PathBuf,
    /// The candidate with this id; the first when absent.
    #[arg(long)]
    candidate: Option<String>,
    /// Parts that may go in: a sheet as the shelf exports it.
    #[arg(long, value_name = "CSV")]
    shelf: Option<PathBuf>,
    /// What may be changed: new_cam, ratio, springs, timing or breathing.
    #[arg(long, default_value = "new_cam", value_parser = start)]
    start: Start,
    /// What is wanted, comma-separated: average_torque, peak_power, low_torque, control, life, money.
    #[arg(long, value_delimiter = ',', default_value = "average_torque,peak_power,low_torque", value_parser = goal)]
    goals: Vec<Goal>,
    /// Candidates computed in full.
    #[arg(long, default_value_t = 20)]
    evaluations: usize,
    /// Of everything that is spread: the same seed gives the same answer.
    #[arg(long, default_value_t = 1)]
    seed: u32,
    /// Begin at the finalists of an earlier answer too.
    #[arg(long, value_name = "ANSWER")]
    from: Option<PathBuf>,
}

fn start(word: &str) -> Result<Start, String> {
    let known = || Start::ALL.map(Start::word).join(", ");
    Start::from_word(word).ok_or_else(|| format!("one of {}", known()))
}

fn goal(word: &str) -> Result<Goal, String> {
    let known = || Goal::ALL.map(Goal::word).join(", ");
    Goal::from_word(word).ok_or_else(|| format!("one of {}", known()))
}

/// Searches and prints the answer.
pub fn search(options: &Options) -> anyhow::Result<ExitCode> {
    let job = job(options)?;
    finish_telling(job, words)
}

fn words(step: SearchStep) -> String {
    if step.of == 0 { step.doing } else { format!("{}: {} of {}", step.doing, step.done, step.of) }
}

fn job(options: &Options) -> anyhow::Result<Result<Result<SearchJob, Halted>, Faults>> {
    let text = read(&options.file)?;
    let shelf = options.shelf.as_ref().map(|path| read(path)).transpose()?;
    let from = options.from.as_ref().map(|path| earlier(&read(path)?)).transpose()?.unwrap_or_default();
    let setup = SearchSetup {
        start: options.start,
        goals: options.goals.clone(),
        evaluations: options.evaluations,
        seed: options.seed,
        from,
    };
    let made = |build: Build| {
        let shelf: Vec<ShelfPart> = match &shelf {
            Some(sheet) => read_sheet(&String::from_utf8_lossy(sheet), UnitSystem::Inch)?,
            None => Vec::new(),
        };
        Ok(SearchJob::new(&build, options.candidate.as_deref(), shelf, setup, Arc::<Stages>::default())?)
    };
    Ok(document(&text).and_then(made))
}

/// Choices of the finalists of an answer.
fn earlier(answer: &[u8]) -> anyhow::Result<Vec<Vec<Decided>>> {
    let answer: serde_json::Value = serde_json::from_slice(answer)?;
    let finalists = answer["finalists"].as_array().cloned().unwrap_or_default();
    finalists.iter().map(|own| Ok(serde_json::from_value(own["point"]["choice"].clone())?)).collect()
}
