//! Instruments that somebody listens to: one reader each, however many pages look, ended when the last one is gone.

use super::watched::Watched;
use super::{Instrument, LiveLine, Reached};
use std::collections::HashMap;
use std::io::{ErrorKind, Read};
use std::sync::{Arc, Mutex, PoisonError, Weak};
use std::thread;
use std::time::{Duration, Instant};
use tokio::sync::watch;

/// Told anew at most so often, and at least so often, that a page which is gone is noticed.
const TELLS: Duration = Duration::from_millis(60);
const BEATS: Duration = Duration::from_secs(1);
/// Waits before it tries an instrument again.
const AGAIN: Duration = Duration::from_millis(800);

/// One instrument's line as it stands, for as long as somebody holds it.
#[derive(Debug)]
pub struct Listening {
    /// Changes with what is heard.
    pub line: watch::Receiver<LiveLine>,
    /// Whoever holds it listens.
    pub held: Arc<()>,
}

/// A reader's line and whether anybody listens.
type Kept = (watch::Receiver<LiveLine>, Weak<()>);

/// All instruments that are listened to.
#[derive(Debug, Default)]
pub struct Hub(Mutex<HashMap<String, (Instrument, Kept)>>);

impl Hub {
    /// Listens to an instrument: with those who listen to it already, or as the first.
    pub fn listen(&self, instrument: &Instrument) -> Listening {
        let mut all = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        all.retain(|_, (_, (_, held))| held.strong_count() > 0);
        if let Some((own, (line, held))) = all.get(&instrument.name)
            && own == instrument
            && let Some(held) = held.upgrade()
        {
            return Listening { line: line.clone(), held };
        }
        let mut watched = Watched::new(&instrument.format);
        let (send, line) = watch::channel(watched.now(Duration::ZERO).clone());
        let held = Arc::new(());
        let listened = Arc::downgrade(&held);
        all.insert(instrument.name.clone(), (instrument.clone(), (line.clone(), listened.clone())));
        let at = instrument.at.clone();
        thread::spawn(move || Reader { watched, send, listened, began: Instant::now(), told: Instant::now() }.run(&at));
        Listening { line, held }
    }
}

struct Reader {
    watched: Watched,
    send: watch::Sender<LiveLine>,
    listened: Weak<()>,
    began: Instant,
    told: Instant,
}

impl Reader {
    fn run(mut self, at: &str) {
        while self.is_wanted() {
            match Reached::of(at).and_then(|reached| reached.open()) {
                Ok(open) => {
                    self.watched.reached(self.began.elapsed());
                    self.tell(true);
                    self.read(open);
                }
                Err(trouble) => self.watched.away(trouble.0),
            }
            self.tell(true);
            thread::sleep(AGAIN);
        }
    }

    fn is_wanted(&self) -> bool {
        self.listened.strong_count() > 0
    }

    /// Reads until it breaks off or nobody listens.
    fn read(&mut self, mut open: Box<dyn Read + Send>) {
        let mut bytes = [0_u8; 256];
        while self.is_wanted() {
            match open.read(&mut bytes) {
                Ok(0) => return self.watched.away("it closed the connection".to_owned()),
                Ok(count) => self.watched.take(&bytes[..count], self.began.elapsed()),
                Err(error) if is_only_late(error.kind()) => (),
                Err(error) => return self.watched.away(error.to_string()),
            }
            self.tell(false);
        }
    }

    /// Tells how it stands: where it came to rest at once, else now and then.
    fn tell(&mut self, at_once: bool) {
        let line = self.watched.now(self.began.elapsed());
        let last = self.send.borrow().clone();
        let is_urgent = at_once || line.rests != last.rests || line.state != last.state;
        let since = self.told.elapsed();
        if is_urgent || since > BEATS || (since > TELLS && *line != last) {
            self.told = Instant::now();
            let _ = self.send.send(line.clone());
        }
    }
}

fn is_only_late(kind: ErrorKind) -> bool {
    matches!(kind, ErrorKind::WouldBlock | ErrorKind::TimedOut | ErrorKind::Interrupted)
}
