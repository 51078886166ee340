//! `upper-lobe stand-in`: an instrument that is not there, for trying out and for tests.

use crate::instruments::stand_in::{FaultKind, Hand, Playing};
use anyhow::{Context, anyhow};
use clap::Args;
use std::net::{SocketAddr, TcpListener};
use std::path::PathBuf;
use std::process::ExitCode;
use std::sync::Arc;
use std::thread;
use std::time::Duration;
use upper_lobe_core::analysis::{Build, Stages, played_of};

/// What it plays, and where.
#[derive(Debug, Args)]
pub struct Options {
    /// Build document; `-` reads standard input.
    pub file: PathBuf,
    /// Identifier of the session whose readings it plays, as the document's engine would give them.
    #[arg(long)]
    pub session: String,
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

/// Plays until it is stopped; begins when somebody first listens.
pub fn run(options: &Options) -> anyhow::Result<ExitCode> {
    let text = String::from_utf8_lossy(&super::analyze::read(&options.file)?).into_owned();
    let build = Build::read(&text).map_err(|faults| anyhow!("{faults}"))?;
    let played = played_of(&build, &options.session, &Stages::default()).map_err(|fault| anyhow!("{fault}"))?;
    let (every, rests) = (Duration::from_millis(options.every.max(5)), Duration::from_millis(options.rests.max(50)));
    let playing = Playing::of(&played, every, rests, options.fault);
    let playing = Arc::new(playing.context("this session asks for nothing that the document can tell")?);
    let hand = Arc::new(if options.by_hand { Hand::told() } else { Hand::timed() });
    if options.by_hand {
        let hand = Arc::clone(&hand);
        thread::spawn(move || std::io::stdin().lines().map_while(Result::ok).for_each(|_| hand.move_on()));
    }
    if options.terminal {
        return on_terminal(&playing, &hand);
    }
    if !options.listen.ip().is_loopback() {
        anyhow::bail!("a stand-in plays on this machine only: {} is no loopback address", options.listen);
    }
    let listener = TcpListener::bind(options.listen).with_context(|| format!("listening on {}", options.listen))?;
    println!("stand-in: {} readings at tcp {}", played.len(), listener.local_addr()?);
    for stream in listener.incoming() {
        let (playing, hand, mut stream) = (Arc::clone(&playing), Arc::clone(&hand), stream?);
        // One who goes away ends only his own line.
        thread::spawn(move || playing.play(&hand, &mut stream));
    }
    Ok(ExitCode::SUCCESS)
}

#[cfg(unix)]
fn on_terminal(playing: &Playing, hand: &Hand) -> anyhow::Result<ExitCode> {
    use serialport::{SerialPort, TTYPort};
    let (mut own, other) = TTYPort::pair().context("making a pseudo-terminal")?;
    let name = other.name().context("its name")?;
    println!("stand-in: {} values at serial {name}", playing.values.len());
    playing.play(hand, &mut own)?;
    drop(other);
    Ok(ExitCode::SUCCESS)
}

#[cfg(not(unix))]
fn on_terminal(_: &Playing, _: &Hand) -> anyhow::Result<ExitCode> {
    anyhow::bail!("this system has no pseudo-terminals: use --listen")
}
