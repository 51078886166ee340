//! `upper-lobe search`: a search run to its end, or a share of one whose parts are merged.

use super::analyze::{print, read};
use super::long::{document, finish_telling};
use super::part;
use clap::Args;
use std::collections::HashSet;
use std::path::PathBuf;
use std::process::ExitCode;
use std::sync::Arc;
use upper_lobe_core::analysis::{
    BesideSetup, Build, Decided, Faults, Goal, Halted, Key, SearchJob, SearchSetup, SearchStep, Share, ShelfPart,
    Stages, Start, UnitSystem, Watch, read_sheet,
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
    /// Compute only the share I of N of what is known to be needed by now, and write it to --out: for several machines.
    #[arg(long, value_name = "I/N", value_parser = share, requires = "out")]
    shard: Option<Share>,
    /// Where the share goes.
    #[arg(long, value_name = "PART", requires = "shard")]
    out: Option<PathBuf>,
    /// Take over what these shares computed; prints the answer, or exits with status 3 where another round of shares is
    /// needed first.
    #[arg(long, value_name = "PART", num_args = 1..)]
    merge: Vec<PathBuf>,
    /// Keep so much of limits that no more than this share of engines, built with the tolerances, fail one that cam or parts
    /// move; finalists that fail more often come behind.
    #[arg(long, value_name = "SHARE")]
    most_fails: Option<f64>,
    /// Begin at the finalists of an earlier answer too.
    #[arg(long, value_name = "ANSWER")]
    from: Option<PathBuf>,
    /// Hold what is found against the candidates that `choose` proposed in this answer, and begin at them too.
    #[arg(long, value_name = "ANSWER")]
    beside: Option<PathBuf>,
}

fn start(word: &str) -> Result<Start, String> {
    let known = || Start::ALL.map(Start::word).join(", ");
    Start::from_word(word).ok_or_else(|| format!("one of {}", known()))
}

fn goal(word: &str) -> Result<Goal, String> {
    let known = || Goal::ALL.map(Goal::word).join(", ");
    Goal::from_word(word).ok_or_else(|| format!("one of {}", known()))
}

/// Exit status where another round of shares is needed.
const ANOTHER_ROUND: u8 = 3;

fn share(text: &str) -> Result<Share, String> {
    let parsed = text.split_once('/').and_then(|(index, of)| Some((index.parse().ok()?, of.parse().ok()?)));
    let Some((index, of)) = parsed.filter(|(index, of): &(usize, usize)| (1..=*of).contains(index)) else {
        return Err("a share I/N, I from 1 to N".to_owned());
    };
    Ok(Share { index: index - 1, of })
}

/// Searches and prints the answer; of a share, keeps what it computed.
pub fn search(options: &Options) -> anyhow::Result<ExitCode> {
    let stages = Arc::<Stages>::default();
    for path in &options.merge {
        part::take(path, &stages)?;
    }
    let known: HashSet<Key> = stages.points.all().into_iter().map(|(key, _)| key).collect();
    let job = job(options, Arc::clone(&stages))?;
    let Some(share) = options.shard.or_else(|| (!options.merge.is_empty()).then_some(MERGED)) else {
        return finish_telling(job, words);
    };
    let job = match job {
        Ok(Ok(job)) => job,
        refused => return finish_telling(refused, words),
    };
    let found = match job.shared(share, &Watch::nobody()) {
        Ok(found) => found,
        Err(halted) => return finish_telling::<SearchJob>(Ok(Err(halted)), words),
    };
    if let Some(path) = &options.out {
        part::write(path, &stages, &known)?;
        return Ok(ExitCode::SUCCESS);
    }
    match found {
        Some(report) => {
            print(&report)?;
            Ok(ExitCode::SUCCESS)
        }
        None => Ok(ExitCode::from(ANOTHER_ROUND)),
    }
}

/// Nothing is computed but what every share computes for itself.
const MERGED: Share = Share { index: usize::MAX, of: usize::MAX };

fn words(step: SearchStep) -> String {
    if step.of == 0 { step.doing } else { format!("{}: {} of {}", step.doing, step.done, step.of) }
}

fn job(options: &Options, stages: Arc<Stages>) -> anyhow::Result<Result<Result<SearchJob, Halted>, Faults>> {
    let text = read(&options.file)?;
    let shelf = options.shelf.as_ref().map(|path| read(path)).transpose()?;
    let from = options.from.as_ref().map(|path| earlier(&read(path)?)).transpose()?.unwrap_or_default();
    let beside = options.beside.as_ref().map(|path| proposed(&read(path)?)).transpose()?.unwrap_or_default();
    let setup = SearchSetup {
        start: options.start,
        goals: options.goals.clone(),
        evaluations: options.evaluations,
        seed: options.seed,
        from,
        most_fails: options.most_fails,
        beside,
    };
    let made = |build: Build| {
        let shelf: Vec<ShelfPart> = match &shelf {
            Some(sheet) => read_sheet(&String::from_utf8_lossy(sheet), UnitSystem::Inch)?,
            None => Vec::new(),
        };
        Ok(SearchJob::new(&build, options.candidate.as_deref(), shelf, setup, stages)?)
    };
    Ok(document(&text).and_then(made))
}

/// Candidates that `choose` proposes, but for the one that stands there.
fn proposed(answer: &[u8]) -> anyhow::Result<Vec<BesideSetup>> {
    let answer: serde_json::Value = serde_json::from_slice(answer)?;
    let proposals = answer["proposals"].as_array().cloned().unwrap_or_default();
    let whole = proposals.into_iter().filter(|own| own["candidate"].is_object());
    let beside = whole.map(|own| BesideSetup {
        title: own["title"].as_str().unwrap_or_default().to_owned(),
        candidate: own["candidate"].clone(),
    });
    Ok(beside.collect())
}

/// Choices of the finalists of an answer.
fn earlier(answer: &[u8]) -> anyhow::Result<Vec<Vec<Decided>>> {
    let answer: serde_json::Value = serde_json::from_slice(answer)?;
    let finalists = answer["finalists"].as_array().cloned().unwrap_or_default();
    finalists.iter().map(|own| Ok(serde_json::from_value(own["point"]["choice"].clone())?)).collect()
}
