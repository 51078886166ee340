//! Stand-ins: instruments that play what a session asks of an engine that is as its document says, with noise and, when told to, a fault.

use clap::ValueEnum;
use std::io::{self, Write};
use std::sync::{Mutex, OnceLock, PoisonError};
use std::thread;
use std::time::{Duration, Instant};
use upper_lobe_core::analysis::{Dimension, PlayedReading};

/// What a stand-in does wrong.
#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub enum FaultKind {
    /// Every third line is no reading.
    Rubbish,
    /// Lines come twice, and in halves.
    Stutter,
    /// Half way it goes over to the other system of units, and says so.
    Unit,
    /// Half way it slips: everything after is off.
    Slip,
    /// Half way it falls silent.
    Silent,
}

/// How it plays.
#[derive(Debug, Clone)]
pub struct Playing {
    /// What it plays, one after the other: SI.
    pub values: Vec<f64>,
    /// What that is.
    pub dimension: Dimension,
    /// Between two lines.
    pub every: Duration,
    /// How long it stays at each value.
    pub rests: Duration,
    /// Half width of its noise, SI.
    pub noise: f64,
    /// What it does wrong.
    pub fault: Option<FaultKind>,
}

/// How long it takes from value to value, as a share of how long it stays.
const MOVES: f64 = 0.35;
/// What a slip is off by, as a share of a value's size.
const SLIPS: f64 = 0.04;

impl Playing {
    /// Everything a session asks for, cell by cell.
    pub fn of(played: &[PlayedReading], every: Duration, rests: Duration, fault: Option<FaultKind>) -> Option<Self> {
        let dimension = played.first()?.dimension;
        let values = played.iter().flat_map(|reading| reading.si.iter().copied()).collect();
        Some(Self { values, dimension, every, rests, noise: 0.2 * fine(dimension), fault })
    }

    /// What stands on its display so long after it left for its value number `place`: it goes there from the one before, and stays.
    fn at(&self, place: usize, since: Duration) -> f64 {
        let own = self.values[place];
        let moved = since.as_secs_f64() / (MOVES * self.rests.as_secs_f64());
        if place == 0 || moved >= 1.0 {
            return own;
        }
        let before = self.values[place - 1];
        // Away and back again, so that two values alike are two readings all the same.
        let away = 40.0 * fine(self.dimension) * (std::f64::consts::PI * moved).sin();
        before + moved * (own - before) + away
    }

    /// Its line number `count`, as bytes; none where it is silent.
    fn line(&self, (place, since): (usize, Duration), count: u64) -> Option<Vec<u8>> {
        let late = 2 * place >= self.values.len();
        let slips = if late && self.fault == Some(FaultKind::Slip) { 1.0 + SLIPS } else { 1.0 };
        let value = slips * self.at(place, since) + self.noise * noise(count);
        let other = late && self.fault == Some(FaultKind::Unit);
        let line = format!("{}\r\n", written(value, self.dimension, other));
        match self.fault {
            Some(FaultKind::Silent) if late => None,
            Some(FaultKind::Rubbish) if count % 3 == 2 => Some(b"\x07ERR 12.5 9\x00\xf0\r\n".to_vec()),
            Some(FaultKind::Stutter) if count % 5 == 4 => {
                let half = &line[..line.len() / 2];
                Some([half.as_bytes(), b"\r", line.as_bytes()].concat())
            }
            Some(FaultKind::Stutter) => Some([line.as_bytes(), line.as_bytes()].concat()),
            _ => Some(line.into_bytes()),
        }
    }

    /// Plays into `out` until it is closed.
    ///
    /// # Errors
    /// That it was closed.
    pub fn play(&self, hand: &Hand, out: &mut impl Write) -> io::Result<()> {
        let mut count = 0;
        loop {
            if let Some(line) = self.line(hand.place(self), count) {
                out.write_all(&line)?;
                out.flush()?;
            }
            count += 1;
            thread::sleep(self.every);
        }
    }
}

/// The hand that moves on from value to value: by itself after so long at each, or when it is told to.
#[derive(Debug)]
pub enum Hand {
    /// By itself, from when it was first looked at.
    Timed(OnceLock<Instant>),
    /// When it is told to: how often it was, and when last.
    Told(Mutex<(usize, Instant)>),
}

impl Hand {
    /// One that moves by itself.
    pub const fn timed() -> Self {
        Self::Timed(OnceLock::new())
    }

    /// One that waits to be told.
    pub fn told() -> Self {
        Self::Told(Mutex::new((0, Instant::now())))
    }

    /// Tells it to move on.
    pub fn move_on(&self) {
        if let Self::Told(moved) = self {
            let mut moved = moved.lock().unwrap_or_else(PoisonError::into_inner);
            *moved = (moved.0 + 1, Instant::now());
        }
    }

    /// How often it was told to move on, or would have been by itself every `every`.
    pub fn moves(&self, every: Duration) -> usize {
        match self {
            Self::Told(moved) => moved.lock().unwrap_or_else(PoisonError::into_inner).0,
            Self::Timed(began) => {
                (began.get_or_init(Instant::now).elapsed().as_secs_f64() / every.as_secs_f64()) as usize
            }
        }
    }

    /// Which value it is at or on its way to, and how long ago it left for it; it stays at the last.
    fn place(&self, playing: &Playing) -> (usize, Duration) {
        let last = playing.values.len() - 1;
        match self {
            Self::Told(moved) => {
                let (place, left) = *moved.lock().unwrap_or_else(PoisonError::into_inner);
                if place > last { (last, playing.rests) } else { (place, left.elapsed()) }
            }
            Self::Timed(began) => {
                let step = playing.rests.as_secs_f64() * (1.0 + MOVES);
                let gone = began.get_or_init(Instant::now).elapsed().as_secs_f64() / step;
                let place = gone as usize;
                if place > last { (last, playing.rests) } else { (place, Duration::from_secs_f64(gone.fract() * step)) }
            }
        }
    }
}

/// The last digit of usual tools, SI.
const fn fine(dimension: Dimension) -> f64 {
    match dimension {
        Dimension::Length => 1e-5,
        Dimension::Force => 1.0,
        Dimension::Mass => 1e-4,
        Dimension::Angle => 1e-3,
        Dimension::Pressure => 3e3,
        Dimension::Volume => 5e-8,
        _ => 2e-4,
    }
}

/// As usual tools write: in the one system or the other.
fn written(si: f64, dimension: Dimension, other: bool) -> String {
    match (dimension, other) {
        (Dimension::Length, false) => format!("{:+.4} in", si / 0.0254),
        (Dimension::Length, true) => format!("{:+.3} mm", si * 1e3),
        (Dimension::Force, false) => format!("{:+.1} lbf", si / 4.448_221_6),
        (Dimension::Force, true) => format!("{si:+.0} N"),
        (Dimension::Mass, _) => format!("{:+.1} g", si * 1e3),
        (Dimension::Angle, _) => format!("{:+.2} deg", si.to_degrees()),
        (Dimension::Pressure, false) => format!("{:+.1} psi", si / 6_894.757),
        (Dimension::Pressure, true) => format!("{:+.0} kPa", si * 1e-3),
        (Dimension::Volume, _) => format!("{:+.1} cc", si * 1e6),
        (_, false) => format!("{:+.1} cfm", si / 4.719_474e-4),
        (_, true) => format!("{:+.1} l/s", si * 1e3),
    }
}

/// Between minus one and one, the same for the same line: a hash of its number.
pub(super) fn noise(count: u64) -> f64 {
    let mixed = count.wrapping_mul(0x9E37_79B9_7F4A_7C15).rotate_left(31).wrapping_mul(0xBF58_476D_1CE4_E5B9);
    (mixed >> 11) as f64 / (1_u64 << 52) as f64 - 1.0
}

#[cfg(test)]
mod tests {
    use super::*;

    fn dial(fault: Option<FaultKind>) -> Playing {
        Playing {
            values: vec![0.001, 0.005, 0.005],
            dimension: Dimension::Length,
            every: Duration::from_millis(50),
            rests: Duration::from_secs(1),
            noise: 0.0,
            fault,
        }
    }

    #[test]
    fn it_stays_at_each_value_and_leaves_it_even_for_its_like() {
        let own = dial(None);
        let ms = Duration::from_millis;
        assert!((own.at(0, ms(10)) - 0.001).abs() < 1e-9 && (own.at(1, ms(400)) - 0.005).abs() < 1e-9);
        assert!(own.at(1, ms(100)) > 0.001 && own.at(1, ms(100)) < 0.005);
        assert!((own.at(2, ms(175)) - 0.005).abs() > 1e-4);
        assert!((0..1000).all(|count| noise(count).abs() <= 1.0));
    }

    #[test]
    fn a_hand_moves_on_when_it_is_told_and_stays_at_the_last() {
        let (own, hand) = (dial(None), Hand::told());
        let places: Vec<usize> = (0..5)
            .map(|_| {
                let place = hand.place(&own).0;
                hand.move_on();
                place
            })
            .collect();
        assert_eq!(places, [0, 1, 2, 2, 2]);
        assert_eq!(Hand::timed().place(&own).0, 0);
    }

    #[test]
    fn its_faults_are_what_they_are_called() {
        let line = |fault, place, count| {
            let at = (place, Duration::from_secs(2));
            dial(fault).line(at, count).map(|own| String::from_utf8_lossy(&own).into_owned())
        };
        assert_eq!(line(None, 0, 0).unwrap(), "+0.0394 in\r\n");
        assert!(line(Some(FaultKind::Rubbish), 0, 2).unwrap().contains("ERR"));
        assert_eq!(line(Some(FaultKind::Unit), 2, 0).unwrap(), "+5.000 mm\r\n");
        assert_eq!(line(Some(FaultKind::Silent), 2, 0), None);
        assert_eq!(line(Some(FaultKind::Slip), 2, 0).unwrap(), "+0.2047 in\r\n");
        assert_eq!(line(Some(FaultKind::Stutter), 0, 0).unwrap().matches("0.0394").count(), 2);
    }
}
