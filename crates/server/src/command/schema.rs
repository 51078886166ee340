//! `upper-lobe schema`: what others need to read and write builds and to talk to the server.

use super::analyze::{print, print_text};
use crate::app::open_api;
use clap::Args;
use std::process::ExitCode;
use upper_lobe_core::analysis::{json_schema, rules_page};

/// Which description.
#[derive(Debug, Args)]
pub struct Options {
    /// Print the API's OpenAPI description instead of the document's JSON Schema.
    #[arg(long)]
    open_api: bool,
    /// Print every rule as a page, in Markdown.
    #[arg(long, conflicts_with = "open_api")]
    rules: bool,
}

/// Prints it.
pub fn run(options: &Options) -> anyhow::Result<ExitCode> {
    if options.rules {
        print_text(&rules_page())?;
    } else if options.open_api {
        print_text(&format!("{}\n", open_api().to_pretty_json()?))?;
    } else {
        print(&json_schema())?;
    }
    Ok(ExitCode::SUCCESS)
}
