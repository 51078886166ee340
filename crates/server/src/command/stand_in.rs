//! `upper-lobe stand-in`: an instrument that is not there, for trying out and for tests.

use crate::instruments::stand_in::{FaultKind, Hand, Playing};
use crate::instruments::stand_in_dyno::{Curve, Dyno};
use anyhow::{Context, anyhow};
use clap::Args;
use std::collections::HashMap;
use std::io::{self, Write};
use std::net::{SocketAddr, TcpListener};
use std::path::PathBuf;
use std::process::ExitCode;
use std::sync::Arc;
use std::thread;
use std::time::Duration;
use upper_lobe_core::analysis::{Build, CurveJob, Effort, Fault, Job, Stages, Watch, dyno_of, played_of};

/// What it plays, and where.
#[derive(Debug, Args)]
pub struct Options {
    /// Build document; `-` reads standard input.
    pub file: PathBuf,
    /// Identifier of the session whose readings it plays, as the document's engine would give them.
    #[arg(long, required_unless_present = "dyno")]
    pub session: Option<String>,
    /// Be a dyno: run the pulls the document plans, as the model has them.
    #[arg(long, conflicts_with = "session")]
    pub dyno: bool,
    /// Loopback address to send lines from; port 0 takes a free one.
    #[arg(long, default_value = "127.0.0.1:0")]
    pub listen: SocketAddr,
    /// A pseudo-terminal instead of an address, where the system has them.
    #[arg(long)]
    pub terminal: bool,
    /// Milliseconds between two lines.
    #[arg(long, default_value_t = 50)]
    pub every: u64,
    /// Milliseconds it stays at each reading.
    #[arg(long, default_value_t = 2000)]
    pub rests: u64,
    /// Stays at each reading until a line comes on standard input.
    #[arg(long)]
    pub by_hand: bool,
    /// What it does wrong.
    #[arg(long, value_enum)]
    pub fault: Option<FaultKind>,
}

/// What is played.
enum Played {
    Readings(Playing),
    Dyno(Dyno),
}

impl Played {
    fn play(&self, hand: &Hand, out: &mut impl Write) -> io::Result<()> {
        match self {
            Self::Readings(own) => own.play(hand, out),
            Self::Dyno(own) => own.play(hand, out),
        }
    }

    fn words(&self) -> String {
        match self {
            Self::Readings(own) => format!("{} values", own.values.len()),
            Self::Dyno(own) => format!("{} pulls", own.pulls.len()),
        }
    }
}

/// Plays until it is stopped; begins when somebody first listens.
pub fn run(options: &Options) -> anyhow::Result<ExitCode> {
    let text = String::from_utf8_lossy(&super::analyze::read(&options.file)?).into_owned();
    let build = Build::read(&text).map_err(|faults| anyhow!("{faults}"))?;
    let played = Arc::new(played(options, &build)?);
    let hand = Arc::new(if options.by_hand { Hand::told() } else { Hand::timed() });
    if options.by_hand {
        let hand = Arc::clone(&hand);
        thread::spawn(move || io::stdin().lines().map_while(Result::ok).for_each(|_| hand.move_on()));
    }
    if options.terminal {
        return on_terminal(&played, &hand);
    }
    if !options.listen.ip().is_loopback() {
        anyhow::bail!("a stand-in plays on this machine only: {} is no loopback address", options.listen);
    }
    let listener = TcpListener::bind(options.listen).with_context(|| format!("listening on {}", options.listen))?;
    println!("stand-in: {} at tcp {}", played.words(), listener.local_addr()?);
    for stream in listener.incoming() {
        let (played, hand, mut stream) = (Arc::clone(&played), Arc::clone(&hand), stream?);
        // One who goes away ends only his own line.
        thread::spawn(move || played.play(&hand, &mut stream));
    }
    Ok(ExitCode::SUCCESS)
}

fn played(options: &Options, build: &Build) -> anyhow::Result<Played> {
    let (every, rests) = (Duration::from_millis(options.every.max(5)), Duration::from_millis(options.rests.max(50)));
    let Some(session) = &options.session else {
        return Ok(Played::Dyno(Dyno { pulls: planned(build)?, every, rests, fault: options.fault }));
    };
    let readings = played_of(build, session, &Stages::default()).map_err(|fault| anyhow!("{fault}"))?;
    let playing = Playing::of(&readings, every, rests, options.fault);
    Ok(Played::Readings(playing.context("this session asks for nothing that the document can tell")?))
}

/// Torque of every pull the document plans, as a draft of the model has it.
fn planned(build: &Build) -> anyhow::Result<Vec<Curve>> {
    let told = |fault: Fault| anyhow!("{fault}");
    let plan = dyno_of(build, None).map_err(told)?.plan.context("a build without a candidate runs no pull")?;
    let stages = Arc::new(Stages::default());
    let mut known: HashMap<String, Curve> = HashMap::new();
    for planned in &plan.order {
        if known.contains_key(&planned.candidate) {
            continue;
        }
        let job =
            CurveJob::new(build, Some(&planned.candidate), (Effort::Draft, None), Arc::clone(&stages)).map_err(told)?;
        let job = job.map_err(|halted| anyhow!("{}: {halted:?}", planned.name))?;
        let curve = job.run(&Watch::nobody()).map_err(|halted| anyhow!("{}: {halted:?}", planned.name))?;
        let points = curve.report.speed_rpm.iter().copied().zip(curve.report.torque_nm.iter().copied()).collect();
        known.insert(planned.candidate.clone(), points);
    }
    Ok(plan.order.iter().filter_map(|own| known.get(&own.candidate).cloned()).collect())
}

#[cfg(unix)]
fn on_terminal(played: &Played, hand: &Hand) -> anyhow::Result<ExitCode> {
    use serialport::{SerialPort, TTYPort};
    let (mut own, other) = TTYPort::pair().context("making a pseudo-terminal")?;
    let name = other.name().context("its name")?;
    println!("stand-in: {} at serial {name}", played.words());
    played.play(hand, &mut own)?;
    drop(other);
    Ok(ExitCode::SUCCESS)
}

#[cfg(not(unix))]
fn on_terminal(_: &Played, _: &Hand) -> anyhow::Result<ExitCode> {
    anyhow::bail!("this system has no pseudo-terminals: use --listen")
}
