//! A dyno that is not there: it runs the pulls a build plans as the model has them, with noise, a day's drift and, when told to, a fault.

use super::stand_in::{FaultKind, Hand, noise};
use std::io::{self, Write};
use std::thread;
use std::time::Duration;

/// Its heading, as it writes it.
const HEADING: &str = "Speed (rpm),Torque (lbf ft),Oil temp (C),Coolant (C),AFR";
/// rpm between two lines of a pull, and where it stands between two.
const STEP: f64 = 25.0;
const IDLE: f64 = 900.0;
/// What a whole pull, and a line of it, is off by at most, as a share; and what each pull has less than the one before.
const WHOLE: f64 = 0.004;
const LINE: f64 = 0.002;
const DRIFT: f64 = 0.0007;
/// What a slipped load cell reads more, as a share.
const SLIPS: f64 = 0.04;
/// N m for a pound-foot.
const POUND_FOOT: f64 = 1.355_818;

/// A curve of torque: rpm and N m, rising in speed.
pub type Curve = Vec<(f64, f64)>;

/// What it plays.
#[derive(Debug, Clone)]
pub struct Dyno {
    /// Torque of every planned pull, in their order.
    pub pulls: Vec<Curve>,
    /// Between two lines.
    pub every: Duration,
    /// Between two pulls, where nobody tells it when.
    pub rests: Duration,
    /// What it does wrong.
    pub fault: Option<FaultKind>,
}

impl Dyno {
    /// Plays into `out` until it is closed: idles, and runs the next pull each time the hand moves on.
    ///
    /// # Errors
    /// That it was closed.
    pub fn play(&self, hand: &Hand, out: &mut impl Write) -> io::Result<()> {
        writeln!(out, "{HEADING}")?;
        let (mut count, mut run) = (0_u64, hand.moves(self.rests));
        loop {
            if hand.moves(self.rests) > run && run < self.pulls.len() {
                for line in self.lines(run) {
                    count += 1;
                    self.write(out, &line, count)?;
                }
                run += 1;
            }
            count += 1;
            self.write(out, &idle(run, count), count)?;
        }
    }

    fn write(&self, out: &mut impl Write, line: &str, count: u64) -> io::Result<()> {
        match self.fault {
            Some(FaultKind::Rubbish) if count % 3 == 2 => out.write_all(b"\x07ERR 12.5 9\x00\xf0\r\n")?,
            Some(FaultKind::Stutter) if count % 5 == 4 => writeln!(out, "{}\r{line}", &line[..line.len() / 2])?,
            _ => writeln!(out, "{line}")?,
        }
        out.flush()?;
        thread::sleep(self.every);
        Ok(())
    }

    /// Lines of one pull: the throttle opens, speed rises to the end of the curve, the throttle closes.
    pub fn lines(&self, pull: usize) -> Vec<String> {
        let curve = &self.pulls[pull];
        let (Some(first), Some(last)) = (curve.first(), curve.last()) else { return Vec::new() };
        let late = 2 * pull >= self.pulls.len();
        let slips = if late && self.fault == Some(FaultKind::Slip) { 1.0 + SLIPS } else { 1.0 };
        let seed = 7919 * (pull as u64 + 1);
        let share = slips * (1.0 - DRIFT * pull as f64) * (1.0 + WHOLE * noise(seed));
        let steps = ((last.0 - first.0) / STEP) as u64;
        let opens = |step: u64| (0.35 + 0.13 * step as f64).min(1.0);
        let mut lines: Vec<String> = (0..=steps)
            .map(|step| {
                let rpm = first.0 + STEP * step as f64;
                let torque = at(curve, rpm) * share * opens(step) * (1.0 + LINE * noise(seed + 1 + step));
                line(rpm, torque, pull)
            })
            .collect();
        lines.extend((1..=20_u32).map(|step| line(last.0 - 100.0 * f64::from(step), -25.0, pull)));
        lines
    }
}

fn line(rpm: f64, torque: f64, pull: usize) -> String {
    format!("{rpm:.0},{:.1},{:.1},{:.1},12.8", torque / POUND_FOOT, 90.0 + 0.2 * pull as f64, 82.0)
}

fn idle(pull: usize, count: u64) -> String {
    line(IDLE + 5.0 * noise(count), 10.0, pull)
}

/// Torque between the points of a curve.
fn at(curve: &[(f64, f64)], rpm: f64) -> f64 {
    let above = curve.partition_point(|point| point.0 <= rpm);
    match (above.checked_sub(1).map(|place| curve[place]), curve.get(above)) {
        (Some(a), Some(b)) => a.1 + (rpm - a.0) / (b.0 - a.0) * (b.1 - a.1),
        (Some(one), None) => one.1,
        (None, Some(one)) => one.1,
        (None, None) => 0.0,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use upper_lobe_core::analysis::LiveDyno;

    fn dyno(fault: Option<FaultKind>) -> Dyno {
        let curve = vec![(2000.0, 500.0), (4000.0, 560.0), (5500.0, 470.0)];
        Dyno { pulls: vec![curve; 4], every: Duration::ZERO, rests: Duration::ZERO, fault }
    }

    #[test]
    fn its_pulls_are_heard_as_pulls() {
        let (own, mut live) = (dyno(None), LiveDyno::default());
        live.hear(HEADING);
        for pull in 0..4 {
            (0..60).for_each(|count| {
                live.hear(&idle(pull, count));
            });
            own.lines(pull).iter().for_each(|line| {
                live.hear(line);
            });
        }
        assert_eq!(live.pulls, 4);
    }

    #[test]
    fn a_slip_is_four_per_cent_from_half_of_its_pulls_on() {
        let torque = |own: &Dyno, pull: usize| {
            own.lines(pull)[60].split(',').nth(1).and_then(|text| text.parse::<f64>().ok()).unwrap()
        };
        let (sound, slipped) = (dyno(None), dyno(Some(FaultKind::Slip)));
        assert!((torque(&slipped, 1) / torque(&sound, 1) - 1.0).abs() < 1e-3);
        assert!((torque(&slipped, 2) / torque(&sound, 2) - 1.0 - SLIPS).abs() < 1e-3);
    }
}
