//! What an instrument says, line by line, as a page is told it.

use serde::Serialize;
use std::sync::Arc;
use std::time::Duration;
use upper_lobe_core::analysis::{
    Dimension, DynoLine, Heard, LineFormat, LiveDyno, Measures, Rest, Shown, heard, restate_finer, shown,
};
use utoipa::ToSchema;

/// Whether readings come.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LiveState {
    /// They do.
    Live,
    /// It is reached, and sends none.
    Silent,
    /// It is not reached.
    Away,
}

/// An instrument as it stands now.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LiveLine {
    /// Whether readings come.
    pub state: LiveState,
    /// The last reading, in both systems.
    pub shown: Option<Shown>,
    /// The same as a field takes it.
    pub text: Option<String>,
    /// How often it has come to rest.
    pub rests: u64,
    /// What it read when it last did, as a field takes it.
    pub rested: Option<String>,
    /// Lines that were no reading.
    pub rubbish: u64,
    /// What was wrong last.
    pub says: Option<String>,
    /// What a dyno reads.
    pub dyno: Option<DynoNow>,
    /// The last pull of a dyno, for who asks for it.
    #[serde(skip)]
    pub file: Option<Arc<str>>,
}

/// A dyno as it stands now.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DynoNow {
    /// Speed.
    pub rpm: f64,
    /// Torque.
    pub torque_nm: f64,
    /// The same as read.
    pub torque: Shown,
    /// Oil, where it sends it.
    pub oil_c: Option<f64>,
    /// The same as read.
    pub oil: Option<Shown>,
    /// Coolant, where it sends it.
    pub water_c: Option<f64>,
    /// The same as read.
    pub water: Option<Shown>,
    /// Whether speed rises as in a pull.
    pub pulling: bool,
    /// Pulls that were run since it is listened to.
    pub pulls: u64,
}

/// Without a reading for so long it is silent.
const SILENT: Duration = Duration::from_secs(2);
/// Longest line that is waited for, bytes: beyond, it is thrown away.
const LONGEST: usize = 400;

/// Makes readings of bytes.
#[derive(Debug)]
pub struct Watched {
    format: LineFormat,
    rest: Rest,
    dyno: LiveDyno,
    part: Vec<u8>,
    heard_at: Duration,
    line: LiveLine,
}

impl Watched {
    /// Nothing was heard yet.
    pub fn new(format: &LineFormat) -> Self {
        Self {
            rest: Rest::new(format.measures.still()),
            format: format.clone(),
            dyno: LiveDyno::default(),
            part: Vec::new(),
            heard_at: Duration::ZERO,
            line: LiveLine {
                state: LiveState::Silent,
                shown: None,
                text: None,
                rests: 0,
                rested: None,
                rubbish: 0,
                says: None,
                dyno: None,
                file: None,
            },
        }
    }

    /// Takes bytes that came `at` so long after the start.
    pub fn take(&mut self, bytes: &[u8], at: Duration) {
        for byte in bytes {
            match byte {
                b'\n' | b'\r' => {
                    let line = String::from_utf8_lossy(&std::mem::take(&mut self.part)).into_owned();
                    self.hear(&line, at);
                }
                _ if self.part.len() < LONGEST => self.part.push(*byte),
                _ => (),
            }
        }
    }

    fn hear(&mut self, line: &str, at: Duration) {
        if self.format.measures == Measures::Pull {
            return self.hear_dyno(line, at);
        }
        match heard(&self.format, line) {
            Heard::Nothing => (),
            Heard::Rubbish(why) => {
                self.line.rubbish += 1;
                self.line.says = Some(why);
            }
            Heard::Reading { si, text, held } => {
                self.heard_at = at;
                let dimension = self.format.measures.dimension();
                self.line.shown = Some(shown(si, dimension));
                if let Some(rested) = self.rest.hear(at.as_secs_f64(), si, held) {
                    self.line.rests += 1;
                    self.line.rested = restate_finer(&text, dimension, rested);
                }
                self.line.text = restate_finer(&text, dimension, si);
                self.line.state = LiveState::Live;
            }
        }
    }

    fn hear_dyno(&mut self, line: &str, at: Duration) {
        let line = line.trim();
        if line.is_empty() {
            return;
        }
        if let DynoLine::Rubbish(why) = self.dyno.hear(line) {
            self.line.rubbish += 1;
            self.line.says = Some(why.to_owned());
            return;
        }
        let Some(now) = self.dyno.now else { return };
        self.heard_at = at;
        self.line.state = LiveState::Live;
        if self.line.rests != self.dyno.pulls {
            self.line.rests = self.dyno.pulls;
            self.line.file = self.dyno.file.as_deref().map(Arc::from);
        }
        let temperature = |kelvin: f64| shown(kelvin, Dimension::Temperature);
        self.line.dyno = Some(DynoNow {
            rpm: now.speed * 30.0 / std::f64::consts::PI,
            torque_nm: now.torque,
            torque: shown(now.torque, Dimension::Torque),
            oil_c: now.oil.map(|kelvin| kelvin - 273.15),
            oil: now.oil.map(temperature),
            water_c: now.water.map(|kelvin| kelvin - 273.15),
            water: now.water.map(temperature),
            pulling: self.dyno.is_pulling(),
            pulls: self.dyno.pulls,
        });
    }

    /// It cannot be reached.
    pub fn away(&mut self, why: String) {
        self.line.state = LiveState::Away;
        self.line.says = Some(why);
        self.part.clear();
    }

    /// It is reached, and nothing was heard of it yet.
    pub fn reached(&mut self, at: Duration) {
        self.line.state = LiveState::Silent;
        self.line.says = None;
        self.heard_at = at;
    }

    /// How it stands, so long after the start.
    pub fn now(&mut self, at: Duration) -> &LiveLine {
        if self.line.state == LiveState::Live && at.saturating_sub(self.heard_at) > SILENT {
            self.line.state = LiveState::Silent;
        }
        &self.line
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use upper_lobe_core::analysis::Measures;

    fn dial() -> Watched {
        Watched::new(&LineFormat {
            measures: Measures::Length,
            unit: "mm".to_owned(),
            before: String::new(),
            decimals: 0,
            turned: false,
            hold: String::new(),
        })
    }

    const fn ms(count: u64) -> Duration {
        Duration::from_millis(count)
    }

    #[test]
    fn lines_come_in_parts_and_rubbish_is_counted() {
        let mut own = dial();
        own.take(b"8.0", ms(10));
        assert_eq!(own.now(ms(20)).state, LiveState::Silent);
        own.take(b"82\r\n\r\nERROR 7 7\n\xff\xfe\n", ms(30));
        let now = own.now(ms(40));
        assert_eq!((now.state, now.text.as_deref(), now.rubbish), (LiveState::Live, Some("8.082 mm"), 2));
        // A line without an end is not waited for for ever.
        own.take(&[b'9'; 5000], ms(50));
        own.take(b"\n8.090\n", ms(60));
        assert_eq!(own.now(ms(70)).text.as_deref(), Some("8.090 mm"));
        assert_eq!(own.now(ms(4000)).state, LiveState::Silent);
    }

    #[test]
    fn a_reading_that_rests_is_told_once_and_a_changed_unit_is_read_as_it_is_sent() {
        let mut own = dial();
        for i in 0..40 {
            own.take(b"8.082\n", ms(50 * i));
        }
        assert_eq!((own.now(ms(2000)).rests, own.now(ms(2000)).rested.as_deref()), (1, Some("8.082 mm")));
        own.take(b"0.3182 in\n", ms(2050));
        let now = own.now(ms(2050));
        assert_eq!((now.rests, now.text.as_deref()), (1, Some("0.3182 in")));
        own.away("gone".to_owned());
        assert_eq!(own.now(ms(2100)).state, LiveState::Away);
    }
}
