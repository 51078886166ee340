//! The runs of a file: where one ends and the next begins, and what about each has to be looked at before it is believed.

use super::headings::sections;
use super::holds::{Holds, Mapped};
use super::table::{Line, Table};
use std::f64::consts::PI;

/// Fewest points of a run, and least it has to rise, rpm.
const FEWEST: usize = 5;
const RISES: f64 = 400.0;
/// Share of what a run has risen by that it falls by before it is over, and by which the next one rises before it has begun.
const FALLS: f64 = 0.3;
const RISES_AGAIN: f64 = 0.12;
/// Share of its steps that fall in a run that gets slower.
const FALLING: f64 = 0.8;
/// Speeds of a crank, rpm.
const SPEEDS: (f64, f64) = (300.0, 15_000.0);
/// Torques, N m.
const TORQUES: (f64, f64) = (5.0, 8_000.0);
/// Torque and power of one line may differ by this share.
const AGREE: f64 = 0.02;
/// N m for a pound-foot.
const POUND_FOOT: f64 = 1.355_818;

/// One run.
#[derive(Debug, Clone, PartialEq)]
pub struct Run {
    /// First line of the file it is from.
    pub line: usize,
    /// Speed and torque as they are written, with their units.
    pub texts: Vec<(String, String)>,
    /// The same, rpm and N m.
    pub points: Vec<(f64, f64)>,
    /// What else was read.
    pub traces: Vec<Trace>,
    /// What has to be looked at, in words.
    pub questions: Vec<String>,
    /// Whether torque is worked out from power.
    pub from_power: bool,
}

/// Something read beside.
#[derive(Debug, Clone, PartialEq)]
pub struct Trace {
    /// What.
    pub holds: Holds,
    /// In which unit.
    pub unit: String,
    /// One number for each point.
    pub values: Vec<f64>,
}

/// The runs of a file by what its columns hold, and what did not become one, in words.
///
/// # Errors
/// In words: no column of speed, none of torque or power, or one without a unit.
pub fn runs(table: &Table, mapped: &[Mapped]) -> Result<(Vec<Run>, Vec<String>), String> {
    let sections = sections(table, mapped);
    let columns: Vec<Columns<'_>> =
        sections.iter().map(|own| Columns::of(table, &own.mapped)).collect::<Result<_, String>>()?;
    let at = |line: usize| sections.partition_point(|own| own.from <= line).saturating_sub(1);
    let read: Vec<Read> = table.lines.iter().filter_map(|line| columns[at(line.number)].read(line)).collect();
    let mut said: Vec<String> = sections.iter().filter_map(|own| own.said.clone()).collect();
    let lost = table.lines.len() - read.len();
    if lost > 0 {
        said.push(format!("{lost} of {} lines have no speed or no torque and are not counted", table.lines.len()));
    }
    columns[0].plausible(&read)?;
    let mut found = Vec::new();
    for part in parts(&read) {
        let part = &read[part];
        let (low, high) =
            part.iter().fold((f64::INFINITY, 0.0_f64), |own, line| (own.0.min(line.rpm), own.1.max(line.rpm)));
        if part.len() < FEWEST || high - low < RISES {
            let Some(first) = part.first() else { continue };
            said.push(format!("{} lines from line {} on are too few for a pull", part.len(), first.line));
        } else {
            let at = at(part[0].line);
            let mut run = columns[at].run(part);
            run.questions.extend(sections[at].question.clone());
            found.push(run);
        }
    }
    Ok((found, said))
}

/// A line as it is read.
struct Read {
    line: usize,
    rpm: f64,
    torque: f64,
    texts: (String, String),
    power: Option<f64>,
    beside: Vec<f64>,
    after_break: bool,
}

struct Columns<'a> {
    speed: (usize, &'a Mapped),
    torque: Option<(usize, &'a Mapped)>,
    power: Option<(usize, &'a Mapped)>,
    beside: Vec<(usize, &'a Mapped)>,
}

impl<'a> Columns<'a> {
    fn of(table: &Table, mapped: &'a [Mapped]) -> Result<Self, String> {
        let with = |holds: Holds| mapped.iter().enumerate().find(|(_, own)| own.holds == holds);
        let name = |place: usize| table.heading.get(place).map_or("", |own| own.0.as_str());
        let speed = with(Holds::Speed).ok_or("no column holds speed: say which one does")?;
        let (torque, power) = (with(Holds::Torque), with(Holds::Power));
        if torque.is_none() && power.is_none() {
            return Err("no column holds torque or power: say which one does".to_owned());
        }
        for (place, own) in [Some(speed), torque, power].into_iter().flatten() {
            if own.holds.unit(&own.unit).is_none() {
                return Err(format!("“{}” needs its unit: the file does not say it", name(place)));
            }
        }
        let is_beside =
            |own: &Mapped| !matches!(own.holds, Holds::Speed | Holds::Torque | Holds::Power | Holds::Nothing);
        let beside = mapped.iter().enumerate().filter(|(_, own)| is_beside(own)).collect();
        Ok(Self { speed, torque, power, beside })
    }

    fn read(&self, line: &Line) -> Option<Read> {
        let si = |column: Option<(usize, &Mapped)>| {
            let (place, own) = column?;
            let unit = own.holds.unit(&own.unit)?;
            Some((line.number_at(place)?, unit.symbol, unit.to_si(line.number_at(place)?)))
        };
        let (number, unit, speed) = si(Some(self.speed))?;
        let rpm = speed * 30.0 / PI;
        let power = si(self.power).map(|own| own.2);
        let (torque, text) = match si(self.torque) {
            Some((number, unit, torque)) => (torque, format!("{number} {unit}")),
            None => {
                let torque = power? / speed;
                (torque, format!("{torque:.2} N m"))
            }
        };
        (rpm > 0.0 && torque.is_finite()).then(|| Read {
            line: line.number,
            rpm,
            torque,
            texts: (format!("{number} {unit}"), text),
            power,
            beside: self.beside.iter().map(|(place, _)| line.number_at(*place).unwrap_or(f64::NAN)).collect(),
            after_break: line.after_break,
        })
    }

    /// What cannot be an engine on a dyno: columns taken one for another, a speed in thousands.
    fn plausible(&self, read: &[Read]) -> Result<(), String> {
        let median = |of: &dyn Fn(&Read) -> f64| {
            let mut all: Vec<f64> = read.iter().map(of).collect();
            all.sort_by(f64::total_cmp);
            all.get(all.len() / 2).copied()
        };
        let (Some(rpm), Some(torque)) = (median(&|own| own.rpm), median(&|own| own.torque.abs())) else {
            return Err("no line has both a speed and a torque".to_owned());
        };
        let is_speed = (SPEEDS.0..=SPEEDS.1).contains(&rpm);
        let rises = |of: &dyn Fn(&Read) -> f64| {
            let steps = read.windows(2).filter(|pair| of(&pair[1]) > of(&pair[0])).count();
            steps as f64 / read.len().max(2) as f64
        };
        let swapped =
            self.torque.is_some() && rises(&|own| own.torque) > 0.9 && rises(&|own| own.rpm) < 0.8 && rpm < 1_500.0;
        if swapped {
            return Err(
                "the columns of speed and torque look swapped: what is called torque rises all the way".to_owned()
            );
        }
        if !is_speed && (SPEEDS.0..=SPEEDS.1).contains(&(1e3 * rpm)) {
            return Err(format!("speeds are about {rpm:.2} rpm: they seem to be in thousands of revolutions"));
        }
        if !is_speed {
            return Err(format!(
                "speeds are about {rpm:.0} rpm: no engine pulls there; look at the column and its unit"
            ));
        }
        if !(TORQUES.0..=TORQUES.1).contains(&torque) {
            return Err(format!("torques are about {torque:.1} N m: look at the column and its unit"));
        }
        Ok(())
    }

    fn run(&self, part: &[Read]) -> Run {
        let points: Vec<(f64, f64)> = part.iter().map(|own| (own.rpm, own.torque)).collect();
        let trace = |(place, (_, own)): (usize, &(usize, &Mapped))| {
            let values: Vec<f64> = part.iter().map(|line| line.beside[place]).collect();
            let is_whole = values.iter().all(|value| value.is_finite());
            is_whole.then(|| Trace { holds: own.holds, unit: own.unit.clone(), values })
        };
        let questions = [self.disagreeing(part), units_change(part), falling(part)].into_iter().flatten().collect();
        Run {
            line: part[0].line,
            texts: part.iter().map(|own| own.texts.clone()).collect(),
            points,
            traces: self.beside.iter().enumerate().filter_map(trace).collect(),
            questions,
            from_power: self.torque.is_none(),
        }
    }

    /// Torque and power of one file that say different things.
    fn disagreeing(&self, part: &[Read]) -> Option<String> {
        self.torque?;
        let mut ratios: Vec<f64> = part
            .iter()
            .filter(|own| own.torque > TORQUES.0)
            .filter_map(|own| Some(own.power? / (own.torque * own.rpm * PI / 30.0)))
            .collect();
        ratios.sort_by(f64::total_cmp);
        let ratio = *ratios.get(ratios.len() / 2)?;
        let why = if (ratio / POUND_FOOT - 1.0).abs() < AGREE {
            "torque looks like pound-feet called newton metres"
        } else if (ratio * POUND_FOOT - 1.0).abs() < AGREE {
            "torque looks like newton metres called pound-feet"
        } else {
            "a unit is not what it is called, or they are of different airs"
        };
        let off = 100.0 * (ratio - 1.0);
        ((ratio - 1.0).abs() > AGREE).then(|| format!("its power is {off:.1} % off what its torque makes: {why}"))
    }
}

/// A run that gets slower nearly all the way.
fn falling(part: &[Read]) -> Option<String> {
    let falls = part.windows(2).filter(|pair| pair[1].rpm < pair[0].rpm).count();
    (falls as f64 > FALLING * (part.len() - 1) as f64).then(|| {
        "its speed falls all the way: what slows down gives its inertia to the brake and reads more than a pull that rises; count it if it was stepped down and held"
            .to_owned()
    })
}

/// Where torque goes over to other units and stays there.
fn units_change(part: &[Read]) -> Option<String> {
    let mean = |range: std::ops::Range<usize>| {
        let own = &part[range];
        own.iter().map(|line| line.torque).sum::<f64>() / own.len() as f64
    };
    let each = 3.min(part.len() / 4);
    (each.max(1)..part.len().saturating_sub(each)).find_map(|at| {
        let ratio = mean(at..at + each.max(1)) / mean(at - each.max(1)..at);
        let step = part[at].torque / part[at - 1].torque;
        let is_unit = [POUND_FOOT, 1.0 / POUND_FOOT]
            .iter()
            .any(|unit| (step / unit - 1.0).abs() < 0.03 && (ratio / unit - 1.0).abs() < 0.06);
        is_unit.then(|| {
            format!(
                "from {:.0} rpm (line {}) on torque is {step:.3} times what it was: its unit changed there",
                part[at].rpm, part[at].line
            )
        })
    })
}

/// The places where runs stand: between breaks, and between two rises.
fn parts(read: &[Read]) -> Vec<std::ops::Range<usize>> {
    let mut found = Vec::new();
    let mut begin = 0;
    let (mut low, mut high, mut bottom) = (f64::INFINITY, 0.0_f64, None::<(usize, f64)>);
    for (place, own) in read.iter().enumerate() {
        let whole = high - low;
        let again = bottom.filter(|(_, least)| own.rpm > least + RISES_AGAIN * whole);
        let cut = if own.after_break && place > begin { Some(place) } else { again.map(|(at, _)| at) };
        if let Some(cut) = cut {
            found.push(begin..cut);
            begin = cut;
            (low, high, bottom) = (read[cut].rpm.min(own.rpm), own.rpm, None);
        }
        (low, high) = (low.min(own.rpm), high.max(own.rpm));
        let falls = high - low > RISES && own.rpm < high - FALLS * (high - low);
        if falls && bottom.is_none_or(|(_, least)| own.rpm <= least) {
            bottom = Some((place, own.rpm));
        }
    }
    if begin < read.len() {
        found.push(begin..read.len());
    }
    found
}

#[cfg(test)]
mod tests {
    use super::super::{guessed, read};
    use super::*;

    fn lines(from: u32, to: u32, torque: impl Fn(u32) -> f64) -> String {
        (from..to).map(|i| format!("{},{:.1}\n", 2000 + 50 * i, torque(i))).collect()
    }

    fn of(text: &str) -> Result<(Vec<Run>, Vec<String>), String> {
        let table = read(text)?;
        runs(&table, &guessed(&table))
    }

    #[test]
    fn one_file_may_hold_several_runs() {
        let up = lines(0, 60, |i| 340.0 + f64::from(i));
        let down: String = (0..50).map(|i| format!("{},{:.1}\n", 4900 - 60 * i, -20.0)).collect();
        for text in [
            format!("rpm,torque (lbf ft)\n{up}{down}{up}"),
            format!("rpm,torque (lbf ft)\n{up}rpm,torque (lbf ft)\n{up}"),
            format!("rpm,torque (lbf ft)\n{up}{up}"),
        ] {
            let (found, said) = of(&text).unwrap();
            assert_eq!((found.len(), said.len()), (2, 0), "{said:?}");
            assert!(found[1].points[0].0.round() <= 2000.0 && found[1].points.len() >= 60);
            assert_eq!(found[0].texts[0], ("2000 rpm".to_owned(), "340 lbf ft".to_owned()));
            assert!((found[0].points[0].1 - 340.0 * POUND_FOOT).abs() < 0.01);
        }
    }

    #[test]
    fn a_heading_further_down_says_in_what_its_lines_are() {
        let (pounds, metres) = (lines(0, 60, |_| 340.0), lines(0, 60, |_| 340.0 * POUND_FOOT));
        for between in ["rpm,torque (N m)\n", "Run 2\n\nrpm,torque\nrpm,N m\n"] {
            let (found, said) =
                of(&format!("rpm,torque (lbf ft)\n{pounds}{between}{metres}rpm,torque (lbf ft)\n{pounds}")).unwrap();
            assert_eq!(found.len(), 3, "{said:?}");
            for run in &found {
                assert!(run.questions.is_empty() && (run.points[9].1 - 340.0 * POUND_FOOT).abs() < 0.1, "{run:?}");
            }
            assert!(said[0].contains("N m") && said.len() == 2, "{said:?}");
            assert_eq!(found[1].texts[0].1, "461 N m");
        }
        let question = |between: &str| {
            let (found, _) = of(&format!("rpm,torque (lbf ft)\n{pounds}{between}{metres}")).unwrap();
            assert!(found[0].questions.is_empty());
            found[1].questions.first().cloned()
        };
        assert!(question("rpm,power (hp)\n").unwrap().contains("“power” where the first names “torque”"));
        assert!(question("rpm,torque (barrels)\n").unwrap().contains("no unit"));
        // What names no column is no heading.
        assert_eq!(question("Run 2,day one\n"), None);
    }

    #[test]
    fn a_run_that_gets_slower_is_asked_about() {
        let down: String = (0..60).map(|i| format!("{},340\n", 5000 - 50 * i)).collect();
        let (found, _) = of(&format!("rpm,torque (lbf ft)\n{down}")).unwrap();
        assert!(found[0].questions[0].contains("falls all the way"), "{:?}", found[0].questions);
        // What jitters and rises is a pull.
        let up = (0..120).map(|i| format!("{},340\n", 2000 + 25 * i + 60 * (i % 2))).collect::<String>();
        let (found, _) = of(&format!("rpm,torque (lbf ft)\n{up}")).unwrap();
        assert!(found[0].questions.is_empty(), "{:?}", found[0].questions);
    }

    #[test]
    fn what_cannot_be_is_said_and_not_guessed() {
        let swapped: String = (0..60).map(|i| format!("{},{}\n", 340 + (i * 7) % 30, 2000 + 50 * i)).collect();
        assert!(of(&format!("rpm,torque (lbf ft)\n{swapped}")).unwrap_err().contains("swapped"));
        let thousands: String = (0..60).map(|i| format!("{:.2},{}\n", 2.0 + 0.05 * f64::from(i), 340 + i)).collect();
        assert!(of(&format!("rpm,torque (N m)\n{thousands}")).unwrap_err().contains("thousands"));
        assert!(of(&format!("rpm,torque\n{}", lines(0, 60, |_| 340.0))).unwrap_err().contains("unit"));
        assert!(of("time,value\n1,2\n2,3\n").unwrap_err().contains("speed"));
        let (_, said) = of(&format!("rpm,torque (N m)\n{}2000,\n2050,-\n", lines(0, 60, |_| 340.0))).unwrap();
        assert_eq!(said.len(), 0, "lines of one figure are a break: {said:?}");
    }

    #[test]
    fn a_unit_that_changes_and_power_that_says_something_else_are_asked() {
        let changed = lines(0, 60, |i| if i < 30 { 340.0 } else { 340.0 * POUND_FOOT });
        let (found, _) = of(&format!("rpm,torque (lbf ft)\n{changed}")).unwrap();
        assert!(found[0].questions[0].contains("unit changed"), "{:?}", found[0].questions);
        let both: String = (0..60)
            .map(|i| {
                let (rpm, torque) = (2000.0 + 50.0 * f64::from(i), 340.0);
                // hp of lbf ft: torque x rpm/5252.1 [definition of the mechanical horsepower].
                format!("{rpm},{torque},{:.1}\n", torque * rpm / 5252.1)
            })
            .collect();
        let (found, _) = of(&format!("rpm,torque (N m),power (hp)\n{both}")).unwrap();
        assert!(found[0].questions[0].contains("pound-feet called newton metres"), "{:?}", found[0].questions);
        let (found, _) = of(&format!("rpm,torque (lbf ft),power (hp)\n{both}")).unwrap();
        assert!(found[0].questions.is_empty());
        let power: String = both
            .lines()
            .map(|line| {
                let cells: Vec<&str> = line.split(',').collect();
                format!("{},{}\n", cells[0], cells[2])
            })
            .collect();
        let (found, _) = of(&format!("rpm,power (hp)\n{power}")).unwrap();
        assert!(found[0].from_power && (found[0].points[9].1 - 340.0 * POUND_FOOT).abs() < 0.5);
    }
}
