//! What the main screen and the door to the shop's network share.

use super::code::Pairing;
use super::{Code, Refused, Role};
use std::collections::{HashMap, HashSet};
use std::sync::{Mutex, MutexGuard, PoisonError, RwLock};
use std::time::{Duration, Instant};

/// Which door a server stands at.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Door {
    /// Loopback: this machine, which needs no pairing.
    Here,
    /// The shop's network: paired devices alone.
    Shop,
}

/// That a device was here is written this often.
const SEEN_EVERY: Duration = Duration::from_secs(60);

/// Pairing and the devices that are let in, as long as the server runs.
pub struct Shop {
    /// Where devices reach it, such as `https://192.168.1.20:8443`; none where it is not open.
    pub addresses: Vec<String>,
    /// SHA-256 of its certificate.
    pub fingerprint: String,
    began: Instant,
    pairing: Mutex<Pairing>,
    shut_out: RwLock<HashSet<i64>>,
    seen: Mutex<HashMap<i64, Instant>>,
}

impl Shop {
    /// No door but the main screen's.
    pub fn closed() -> Self {
        Self::open(Vec::new(), String::new())
    }

    /// Open at these addresses.
    pub fn open(addresses: Vec<String>, fingerprint: String) -> Self {
        Self {
            addresses,
            fingerprint,
            began: Instant::now(),
            pairing: Mutex::default(),
            shut_out: RwLock::default(),
            seen: Mutex::default(),
        }
    }

    /// A new code for a device of a role; the one before is good no more.
    ///
    /// # Errors
    /// The system has no random numbers.
    pub fn show_code(&self, role: Role) -> Result<Code, getrandom::Error> {
        let code = Code::new()?;
        self.pairing().begin(&code, role, self.began.elapsed());
        Ok(code)
    }

    /// No code is good any more.
    pub fn hide_code(&self) {
        self.pairing().end();
    }

    /// Seconds for which the code on the screen is good; `None` where none is.
    pub fn code_left(&self) -> Option<u64> {
        self.pairing().left(self.began.elapsed()).map(|left| left.as_secs())
    }

    /// Tries a code.
    ///
    /// # Errors
    /// That it is refused.
    pub fn attempt(&self, typed: &str) -> Result<Role, Refused> {
        self.pairing().attempt(typed, self.began.elapsed())
    }

    /// Cuts off whatever a device still has under way.
    pub fn shut_out(&self, device: i64) {
        self.shut_out.write().unwrap_or_else(PoisonError::into_inner).insert(device);
    }

    /// Whether a device was shut out since the server began.
    pub fn is_shut_out(&self, device: i64) -> bool {
        self.shut_out.read().unwrap_or_else(PoisonError::into_inner).contains(&device)
    }

    /// Whether it is time to write that a device was here.
    pub fn is_to_be_seen(&self, device: i64) -> bool {
        let mut seen = self.seen.lock().unwrap_or_else(PoisonError::into_inner);
        let is_old = seen.get(&device).is_none_or(|at| at.elapsed() >= SEEN_EVERY);
        if is_old {
            seen.insert(device, Instant::now());
        }
        is_old
    }

    fn pairing(&self) -> MutexGuard<'_, Pairing> {
        self.pairing.lock().unwrap_or_else(PoisonError::into_inner)
    }
}
