//! Lines of a dyno as they come: a heading, then figures. Where speed rises under load and falls again was a pull; its lines are a file like
//! any other.

use super::file::{Holds, Mapped, guessed, read};

/// Least a pull rises, rpm, and how far it falls back before it is over: so much, or that share of what it rose.
const RISES: f64 = 800.0;
const FALLS: (f64, f64) = (200.0, 0.1);
/// Lines over which speed has to rise by so much, rpm, while a pull goes on; what was held longer before it is not of it.
const HELD: (usize, f64) = (40, 60.0);
/// Most lines of one pull.
const MOST: usize = 20_000;

/// What a dyno reads now, SI.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Now {
    /// rad/s.
    pub speed: f64,
    /// N m.
    pub torque: f64,
    /// K, where it sends it.
    pub oil: Option<f64>,
    /// K, where it sends it.
    pub water: Option<f64>,
}

/// What a line said.
#[derive(Debug, Clone, PartialEq)]
pub enum Line {
    /// Figures.
    Figures,
    /// The heading.
    Heading,
    /// Neither, and why.
    Rubbish(&'static str),
}

/// A dyno that is listened to.
#[derive(Debug, Clone, Default)]
pub struct Live {
    heading: Option<(String, Vec<Mapped>)>,
    lines: Vec<(f64, String)>,
    /// What it reads now.
    pub now: Option<Now>,
    /// Pulls that are over.
    pub pulls: u64,
    /// The last of them as a file.
    pub file: Option<String>,
}

impl Live {
    /// Whether speed rises as in a pull.
    pub fn is_pulling(&self) -> bool {
        self.range().is_some_and(|(low, high)| high - low > 0.4 * RISES)
    }

    /// Takes a line.
    pub fn hear(&mut self, line: &str) -> Line {
        if !line.starts_with(|c: char| c.is_ascii_digit() || matches!(c, '-' | '+' | '.')) {
            return self.head(line);
        }
        let Some((heading, mapped)) = &self.heading else {
            return Line::Rubbish("figures before a heading: nobody knows what they are");
        };
        // Two lines are the least that is a table.
        let Ok(table) = read(&format!("{heading}\n{line}\n{line}\n")) else {
            return Line::Rubbish("no line of figures");
        };
        let si = |holds: Holds| {
            let place = mapped.iter().position(|own| own.holds == holds)?;
            let unit = holds.unit(&mapped[place].unit)?;
            Some(unit.to_si(table.lines.first()?.number_at(place)?))
        };
        let (Some(speed), Some(torque)) = (si(Holds::Speed), si(Holds::Torque)) else {
            return Line::Rubbish("a line without speed or torque");
        };
        self.now = Some(Now { speed, torque, oil: si(Holds::OilTemperature), water: si(Holds::WaterTemperature) });
        self.take(speed * 30.0 / std::f64::consts::PI, line);
        Line::Figures
    }

    fn head(&mut self, line: &str) -> Line {
        let figures = vec!["1"; line.split([',', ';', '\t']).count()].join(mark_of(line));
        let Ok(table) = read(&format!("{line}\n{figures}\n{figures}\n")) else { return Line::Rubbish("no heading") };
        let mapped = guessed(&table);
        let has = |holds: Holds| mapped.iter().any(|own| own.holds == holds && !own.unit.is_empty());
        if !has(Holds::Speed) || !has(Holds::Torque) {
            return Line::Rubbish("no heading with a speed and a torque, each with its unit");
        }
        self.heading = Some((line.to_owned(), mapped));
        Line::Heading
    }

    fn take(&mut self, rpm: f64, line: &str) {
        if let Some((low, high)) = self.range()
            && rpm < high - FALLS.0.max(FALLS.1 * (high - low))
        {
            if high - low >= RISES {
                self.end();
            }
            self.lines.clear();
        }
        if self.lines.len() >= HELD.0 {
            let before = self.lines[self.lines.len() - HELD.0].0;
            // Held, or rising too slowly for a pull: it has not begun.
            if rpm - before < HELD.1 && !self.is_pulling() {
                self.lines.drain(..self.lines.len() - 3);
            }
        }
        if self.lines.len() < MOST {
            self.lines.push((rpm, line.to_owned()));
        }
    }

    fn end(&mut self) {
        let Some((heading, _)) = &self.heading else { return };
        let lines: Vec<&str> = self.lines.iter().map(|(_, line)| line.as_str()).collect();
        self.file = Some(format!("{heading}\n{}\n", lines.join("\n")));
        self.pulls += 1;
    }

    fn range(&self) -> Option<(f64, f64)> {
        let ends = self.lines.iter().map(|line| (line.0, line.0));
        ends.reduce(|own, line| (own.0.min(line.0), own.1.max(line.1)))
    }
}

fn mark_of(line: &str) -> &'static str {
    if line.contains('\t') {
        "\t"
    } else if line.contains(';') {
        ";"
    } else {
        ","
    }
}

#[cfg(test)]
mod tests {
    use super::super::file::runs;
    use super::*;

    fn pull(live: &mut Live, torque: f64) {
        for i in 0..60 {
            live.hear(&format!("{},{torque},90.5,{}", 2000 + 60 * i, 80));
        }
        for i in 0..20 {
            live.hear(&format!("{},-20,90.5,80", 5500 - 150 * i));
        }
    }

    #[test]
    fn pulls_end_where_speed_falls_and_are_files_like_any_other() {
        let mut live = Live::default();
        assert!(matches!(live.hear("2000,300,90,80"), Line::Rubbish(_)));
        assert!(matches!(live.hear("dyno ready"), Line::Rubbish(_)));
        assert_eq!(live.hear("rpm,torque (lbf ft),oil temp (C),coolant (C)"), Line::Heading);
        // Held at its slowest speed for a while before it begins.
        for _ in 0..100 {
            assert_eq!(live.hear("2000,150,90,80"), Line::Figures);
        }
        assert!(!live.is_pulling());
        pull(&mut live, 350.0);
        assert_eq!(live.pulls, 1);
        let file = live.file.clone().expect("a pull");
        let table = read(&file).expect("a table");
        let (found, said) = runs(&table, &guessed(&table)).expect("runs");
        assert_eq!((found.len(), said.len()), (1, 0));
        assert!((60..110).contains(&found[0].points.len()), "{}", found[0].points.len());
        pull(&mut live, 351.0);
        assert_eq!(live.pulls, 2);
        let now = live.now.expect("figures");
        assert!((now.oil.unwrap_or(0.0) - 363.65).abs() < 1e-9 && now.torque < 0.0);
    }

    #[test]
    fn a_blip_is_no_pull_and_rubbish_breaks_none() {
        let mut live = Live::default();
        live.hear("rpm;torque (N m)");
        for i in 0..10 {
            live.hear(&format!("{};100", 900 + 60 * i));
        }
        for i in 0..10 {
            live.hear(&format!("{};-5", 1400 - 60 * i));
        }
        assert_eq!(live.pulls, 0);
        for i in 0..60 {
            live.hear(&format!("{};400", 1500 + 60 * i));
            live.hear("\u{7}ERR 12;");
        }
        live.hear("3000;-10");
        assert_eq!(live.pulls, 1);
        assert_eq!(live.file.expect("a pull").lines().filter(|line| line.contains("ERR")).count(), 0);
    }
}
