//! `upper-lobe analyze FILE`: the same analysis as the screen, as JSON.

use super::REFUSED;
use anyhow::Context;
use clap::Args;
use std::io::{Read, Write};
use std::path::{Path, PathBuf};
use std::process::ExitCode;
use upper_lobe_core::analysis::{Analysis, PartName, Request, Stages, analyze};
use upper_lobe_core::analysis::{Build, Faults, MAX_BYTES};

/// What to analyse.
#[derive(Debug, Args)]
pub struct Options {
    /// The build document; `-` reads standard input.
    file: PathBuf,
    /// Only the candidate with this id.
    #[arg(long)]
    candidate: Option<String>,
    /// Parts wanted, separated by commas: timing, strip, lift, lobe, spring, control, clearance,
    /// drawing, limits, remedies; and breathing and dynamics, which take seconds. All but those two when absent.
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
    let request = Request::of(options.candidate.clone(), parts);
    Ok(analyze(&build, &request, &Stages::default())?)
}

/// Prints a value as JSON.
pub fn print(value: &impl serde::Serialize) -> anyhow::Result<()> {
    let mut out = std::io::stdout().lock();
    serde_json::to_writer_pretty(&mut out, value)?;
    writeln!(out)?;
    Ok(())
}
