//! The code that pairs a device: shown on the main screen, good once, for some minutes and a few tries [OWASP Authentication Cheat
//! Sheet: throttling; Session Management Cheat Sheet: entropy; from memory].

use super::Role;
use sha2::{Digest, Sha256};
use std::collections::VecDeque;
use std::fmt;
use std::time::Duration;

/// Letters and digits that nobody mistakes for another.
const LETTERS: &[u8; 31] = b"ABCDEFGHJKMNPQRSTUVWXYZ23456789";
/// Letters of a code: 39 bits.
const LENGTH: usize = 8;
/// It is good for so long.
pub const GOOD: Duration = Duration::from_secs(180);
/// Wrong tries of one code, after which it is spent.
const TRIES: u8 = 5;
/// Wrong tries of all devices together within [`WITHIN`], after which all of them wait.
const ALL_TRIES: usize = 20;
const WITHIN: Duration = Duration::from_secs(600);

/// A code as it is shown; never logged, and kept as its digest only.
#[derive(Clone, PartialEq, Eq)]
pub struct Code(String);

impl Code {
    /// A new one.
    ///
    /// # Errors
    /// The system has no random numbers.
    pub fn new() -> Result<Self, getrandom::Error> {
        let mut code = String::with_capacity(LENGTH);
        while code.len() < LENGTH {
            let mut byte = [0_u8];
            getrandom::fill(&mut byte)?;
            // Five bits; the one value that stands for no letter is drawn anew, so that none is more likely than another.
            code.extend(LETTERS.get(usize::from(byte[0] & 31)).map(|letter| char::from(*letter)));
        }
        Ok(Self(code))
    }

    /// In two halves, to be read out.
    pub fn shown(&self) -> String {
        format!("{}-{}", &self.0[..LENGTH / 2], &self.0[LENGTH / 2..])
    }
}

impl fmt::Debug for Code {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str("Code(…)")
    }
}

/// Why a try was refused.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Refused {
    /// Wrong, none shown, or its time is over: which of them is not told.
    Wrong,
    /// Too many were wrong: wait.
    Wait,
}

/// Pairing as it stands.
#[derive(Debug, Default)]
pub struct Pairing {
    open: Option<Open>,
    wrong: VecDeque<Duration>,
}

#[derive(Debug)]
struct Open {
    digest: [u8; 32],
    role: Role,
    until: Duration,
    left: u8,
}

impl Pairing {
    /// Shows a code for a device of this role; one that was shown before is good no more.
    pub fn begin(&mut self, code: &Code, role: Role, now: Duration) {
        self.open = Some(Open { digest: digest(&code.0), role, until: now + GOOD, left: TRIES });
    }

    /// The code is shown no more.
    pub fn end(&mut self) {
        self.open = None;
    }

    /// How long the code that is shown is still good; `None` where none is.
    pub fn left(&self, now: Duration) -> Option<Duration> {
        self.open.as_ref()?.until.checked_sub(now).filter(|left| !left.is_zero())
    }

    /// Tries a code as it was typed; the role it gives, once.
    ///
    /// # Errors
    /// That it is refused.
    pub fn attempt(&mut self, typed: &str, now: Duration) -> Result<Role, Refused> {
        self.wrong.retain(|at| now.saturating_sub(*at) < WITHIN);
        if self.wrong.len() >= ALL_TRIES {
            return Err(Refused::Wait);
        }
        let tried = digest(&plain(typed));
        let is_right = self.open.as_ref().is_some_and(|open| now < open.until && open.digest == tried);
        if let Some(open) = self.open.take_if(|_| is_right) {
            return Ok(open.role);
        }
        self.wrong.push_back(now);
        if let Some(open) = &mut self.open {
            open.left = open.left.saturating_sub(1);
        }
        self.open.take_if(|open| open.left == 0 || now >= open.until);
        Err(Refused::Wrong)
    }
}

/// As a code is written, whatever the case and the gaps it was typed with.
fn plain(typed: &str) -> String {
    let letters = typed.chars().filter(|c| !c.is_whitespace() && *c != '-').take(2 * LENGTH);
    letters.map(|c| c.to_ascii_uppercase()).collect()
}

/// Digests are compared in place of codes: how far two agree tells nothing of how far the codes do.
fn digest(text: &str) -> [u8; 32] {
    Sha256::digest(text.as_bytes()).into()
}

#[cfg(test)]
mod tests {
    use super::*;

    const fn at(seconds: u64) -> Duration {
        Duration::from_secs(seconds)
    }

    fn shown() -> (Pairing, Code) {
        let (mut pairing, code) = (Pairing::default(), Code::new().unwrap());
        pairing.begin(&code, Role::Readings, at(0));
        (pairing, code)
    }

    #[test]
    fn a_code_is_good_once_and_for_three_minutes() {
        let (mut pairing, code) = shown();
        assert_eq!(pairing.attempt(&code.shown().to_lowercase(), at(10)), Ok(Role::Readings));
        assert_eq!(pairing.attempt(&code.shown(), at(11)), Err(Refused::Wrong));
        let (mut pairing, code) = shown();
        assert_eq!(pairing.attempt(&code.shown(), at(180)), Err(Refused::Wrong));
        assert_eq!(Pairing::default().attempt("AAAA-AAAA", at(0)), Err(Refused::Wrong));
    }

    #[test]
    fn five_wrong_tries_spend_it_and_twenty_make_everybody_wait() {
        let (mut pairing, code) = shown();
        for _ in 0..5 {
            assert_eq!(pairing.attempt("ABCD-EFGH", at(1)), Err(Refused::Wrong));
        }
        assert_eq!(pairing.attempt(&code.shown(), at(2)), Err(Refused::Wrong));
        for _ in 0..14 {
            assert_eq!(pairing.attempt("ABCD-EFGH", at(3)), Err(Refused::Wrong));
        }
        pairing.begin(&code, Role::Look, at(4));
        assert_eq!(pairing.attempt(&code.shown(), at(5)), Err(Refused::Wait));
        pairing.begin(&code, Role::Look, at(700));
        assert_eq!(pairing.attempt(&code.shown(), at(701)), Ok(Role::Look));
    }

    #[test]
    fn codes_are_letters_that_nobody_reads_in_a_log() {
        let codes: std::collections::HashSet<String> = (0..500).map(|_| Code::new().unwrap().shown()).collect();
        assert_eq!(codes.len(), 500);
        assert!(codes.iter().all(|code| code.len() == 9 && !code.contains(['0', 'O', '1', 'I', 'L'])));
        assert_eq!(format!("{:?}", Code::new().unwrap()), "Code(…)");
        assert_eq!(LETTERS.iter().collect::<std::collections::HashSet<_>>().len(), 31);
    }
}
