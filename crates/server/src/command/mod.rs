//! The command line: every command with help that teaches.

mod analyze;
mod backup;
mod begin;
mod bench;
mod database;
mod demo;
mod dyno;
mod long;
mod motion;
mod order;
mod owner;
mod part;
mod schema;
mod search;
mod serve;
mod service;
mod stand_in;

use clap::{Args, Parser, Subcommand};
use database::DatabaseOptions;
use std::net::IpAddr;
use std::path::PathBuf;
use std::process::ExitCode;

/// Exit status for refused input.
pub const REFUSED: u8 = 2;

/// Valve events, lobes, trains and clearances of pushrod engines.
///
/// A build is one JSON document: the engine, what it is for, and any number of candidate cams with
/// their trains. `upper-lobe schema` prints its JSON Schema; `upper-lobe demo --print` a complete
/// example. Quantities are texts with their unit, as people write them: "0.050 in", "5/16 in",
/// "37.1 mm", "150 lbf".
///
/// Every verdict is a planning aid: a maker's instructions and a competent machinist's measurement
/// stand above any computed number.
#[derive(Debug, Parser)]
#[command(name = "upper-lobe", version)]
struct CommandLine {
    #[command(subcommand)]
    command: Command,
}

#[derive(Debug, Subcommand)]
enum Command {
    /// Analyse a build document and print the result as JSON.
    ///
    /// The answer has one block for each part, each with its state, and every limit with need, have
    /// and margin. Lengths are in mm, loads in N, angles in crank degrees; each key names its unit.
    /// A refused document exits with status 2 and prints every fault at once: field, what was
    /// given, what it needs, and the cure.
    ///
    /// Examples:
    ///   upper-lobe analyze build.json
    ///   upper-lobe analyze build.json --candidate a --parts timing,limits
    ///   upper-lobe demo --print | upper-lobe analyze -
    #[command(verbatim_doc_comment)]
    Analyze(analyze::Options),
    /// Print a build to begin with: an engine of an invented family, every value assumed, and a first cam by card rules.
    ///
    /// Without a family the families are listed. Examples:
    ///   upper-lobe begin
    ///   upper-lobe begin middle_v8 --heads aluminium --use marine --known engine.bore=4.04 > build.json
    #[command(verbatim_doc_comment)]
    Begin(begin::Options),
    /// Print the order card of a candidate: as asked, as to be ground, as running and as it came, with parts and what to do, as JSON, CSV, HTML or XLSX.
    Order(order::Options),
    /// Print a session at the bench, everything it asks for and what was read of it, as JSON or CSV.
    Bench(bench::Options),
    /// Change each decision of a candidate a little and print what its torque curve does, as JSON. Takes seconds.
    Sensitivity(long::CandidateOptions),
    /// Compute what there is to choose of a candidate and print it as JSON: every decision of the cam over its range, and the
    /// candidates that both schools come to. Takes half a minute.
    Choose(long::ChooseOptions),
    /// Rank every candidate of a document column by column, as its score board or a contest asks, and print it as JSON.
    Score(long::Options),
    /// Search cams, lifters, rockers, pushrods, springs and retainers under every limit, for several goals at once, and print
    /// the finalists, computed in full with their trains in motion, what binds them and what each limit costs, as JSON.
    /// Takes about a minute.
    Search(search::Options),
    /// Fit the model's constants to the dyno pull a document holds and print them, as JSON. Takes seconds.
    Calibrate(long::Options),
    /// Fit what nobody measures on a valve train to its measured motion and print, as JSON, what that says; or stand in for a rig.
    Motion(motion::Options),
    /// Compare the pulls of a document and print, as JSON, what differs, how sure that is and what is odd; and the test it plans.
    Dyno(dyno::Options),
    /// Read the service log of a document and print what wears, when it reaches its limits and what is due, as JSON or as a calendar.
    Service(service::Options),
    /// Print the report for an owner, with pictures and cautions, as a page to print or to keep, or as JSON.
    Owner(owner::Options),
    /// Write a copy of the whole database to FILE; a server may be running and saving.
    Backup(backup::Options),
    /// Put everything of a backup in the place of what is in the database, which is kept beside it first.
    Restore(backup::Options),
    /// Write every build with all its revisions, and the shelf, into one open ZIP archive of JSON and CSV.
    Export(backup::Options),
    /// Add the builds of such an archive to those that are there, and its parts to the shelf.
    Import(backup::Options),
    /// Serve the application on this machine only, or with --lan to paired devices of the shop's network too.
    ///
    /// Builds are kept in one SQLite file. Stop it with Ctrl+C; answers under way are finished.
    ///
    /// Examples:
    ///   upper-lobe serve
    ///   upper-lobe serve --lan
    ///   upper-lobe serve --lan 192.168.1.20 --certificate shop.pem --key shop-key.pem
    #[command(verbatim_doc_comment)]
    Serve(ServeOptions),
    /// Play an instrument that is not there: lines of readings, as a session of a build asks for them, with noise and faults.
    ///
    /// Examples:
    ///   upper-lobe stand-in build.json --session s1
    ///   upper-lobe stand-in build.json --session s1 --terminal --fault stutter
    #[command(verbatim_doc_comment)]
    StandIn(stand_in::Options),
    /// Put the invented demo builds into the database, once each.
    Demo(demo::Options),
    /// Print the JSON Schema of build documents, or the API's OpenAPI description.
    Schema(schema::Options),
}

/// How to serve.
#[derive(Debug, Clone, Args)]
pub struct ServeOptions {
    /// Loopback address to listen on.
    #[arg(long, env = "UPPER_LOBE_ADDRESS", default_value = "127.0.0.1")]
    pub address: IpAddr,
    /// Port to listen on; 0 takes a free one.
    #[arg(long, env = "UPPER_LOBE_PORT", default_value_t = 8080)]
    pub port: u16,
    /// The shop's network.
    #[command(flatten)]
    pub lan: LanOptions,
    /// Where the database is.
    #[command(flatten)]
    pub database: DatabaseOptions,
    /// Put the demo builds into an empty database first.
    #[arg(long)]
    pub demo: bool,
    /// Open the database for reading alone: nothing can be saved.
    #[arg(long)]
    pub read_only: bool,
    /// Write logs as JSON lines.
    #[arg(long, env = "UPPER_LOBE_LOG_JSON")]
    pub log_json: bool,
}

/// How devices of the shop's network are let in.
#[derive(Debug, Clone, Args)]
pub struct LanOptions {
    /// Let devices of the shop's network in, over TLS and paired from the main screen; at this address of this machine, or at
    /// all of its private ones.
    #[arg(long, value_name = "ADDRESS", num_args = 0..=1, require_equals = false)]
    pub lan: Option<Option<IpAddr>>,
    /// Port for them; 0 takes a free one.
    #[arg(long, env = "UPPER_LOBE_LAN_PORT", default_value_t = 8443, requires = "lan")]
    pub lan_port: u16,
    /// Certificate chain for them, PEM; without one, one is made and kept beside the database.
    #[arg(long, value_name = "FILE", requires = "lan", requires = "key")]
    pub certificate: Option<PathBuf>,
    /// Its key, PEM.
    #[arg(long, value_name = "FILE", requires = "certificate")]
    pub key: Option<PathBuf>,
}

/// Runs the command line.
pub fn run() -> ExitCode {
    let outcome = match CommandLine::parse().command {
        Command::Analyze(options) => analyze::run(&options),
        Command::Begin(options) => begin::run(&options),
        Command::Order(options) => order::run(&options),
        Command::Bench(options) => bench::run(&options),
        Command::Sensitivity(options) => long::sensitivity(&options),
        Command::Choose(options) => long::choose(&options),
        Command::Score(options) => long::score(&options),
        Command::Search(options) => search::search(&options),
        Command::Calibrate(options) => long::calibrate(&options),
        Command::Motion(options) => motion::run(&options),
        Command::Dyno(options) => dyno::run(&options),
        Command::Service(options) => service::run(&options),
        Command::Owner(options) => owner::run(&options),
        Command::Backup(options) => backup::backup(&options),
        Command::Restore(options) => backup::restore(&options),
        Command::Export(options) => backup::export(&options),
        Command::Import(options) => backup::import(&options),
        Command::Serve(options) => serve::run(&options),
        Command::Demo(options) => demo::run(&options),
        Command::StandIn(options) => stand_in::run(&options),
        Command::Schema(options) => schema::run(&options),
    };
    match outcome {
        Ok(code) => code,
        Err(error) if analyze::has_no_reader(&error) => ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("upper-lobe: {error:#}");
            ExitCode::FAILURE
        }
    }
}
