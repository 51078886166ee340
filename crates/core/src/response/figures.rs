//! What a curve comes to for somebody who chooses: a few figures of its columns, the same for a computed curve and for a
//! predicted one.

use crate::peaks::peak;
use crate::table::held;

/// What the plan asks of a curve, and what it has.
#[derive(Debug, Clone, PartialEq)]
pub struct PlanOf {
    /// Band, rpm.
    pub band: (f64, f64),
    /// Where peak power is wanted, rpm.
    pub wanted: Option<f64>,
    /// Where it is shifted, rpm.
    pub shift: Option<f64>,
    /// How fast a missed shift lets it turn, rpm.
    pub missed: Option<f64>,
    /// No peak beyond it, rpm.
    pub used_to: f64,
    /// Whether knock bounds it.
    pub spark: bool,
    /// Whether boost is computed.
    pub charged: bool,
}

/// Figures of one curve. Torque in N m, power in W, pressure in Pa.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Figures {
    /// Mean over the band.
    pub average_torque: f64,
    /// Mean over the lowest, the middle and the highest third of the band.
    pub thirds: [f64; 3],
    /// Greatest power, and its speed, rpm.
    pub peak_power: f64,
    /// Where that is, rpm.
    pub peak_power_rpm: f64,
    /// Power where its peak is wanted; at the peak where the plan does not say.
    pub power_wanted: f64,
    /// Greatest torque.
    pub peak_torque: f64,
    /// Octane number at the edge of knock, greatest over the speeds.
    pub octane: Option<f64>,
    /// Highest cylinder pressure.
    pub peak_pressure: f64,
    /// Highest pressure behind the exhaust valve as it opens.
    pub opening_pressure: f64,
    /// Highest exhaust temperature, C.
    pub exhaust_temperature: f64,
    /// Least air-fuel ratio.
    pub air_fuel: f64,
    /// Greatest boost and drive pressure, gauge.
    pub boost: Option<(f64, f64)>,
}

/// Speeds that limits are judged over, rpm. Full load down to idle is drawn, but nobody holds an engine there: what is judged
/// begins a step below the band and ends a step beyond it or the shift.
pub fn judged((from, to): (f64, f64), shift: Option<f64>) -> (f64, f64) {
    let step = 0.1 * (to - from) + 0.5;
    (from - step, shift.map_or(to, |shift| shift.max(to)) + step)
}

/// What is computed of a curve at every speed, column after column.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Columns {
    /// Speeds, rpm.
    pub speeds: Vec<f64>,
    /// Each column over the speeds, torque first.
    pub values: Vec<f64>,
}

impl Columns {
    /// Every column at other speeds, on straight lines between its own; beyond them its ends.
    pub fn at(&self, speeds: &[f64]) -> Vec<f64> {
        let columns = self.values.chunks(self.speeds.len().max(1));
        let column = |own: &[f64]| {
            let known: Vec<(f64, f64)> = self.speeds.iter().copied().zip(own.iter().copied()).collect();
            speeds.iter().map(|rpm| held(&known, *rpm)).collect::<Vec<f64>>()
        };
        columns.flat_map(column).collect()
    }

    /// As bytes: how many speeds, the speeds, the columns, all little-endian.
    pub fn to_bytes(&self) -> Vec<u8> {
        let count = (self.speeds.len() as u32).to_le_bytes();
        let numbers = self.speeds.iter().chain(&self.values).flat_map(|number| number.to_le_bytes());
        count.into_iter().chain(numbers).collect()
    }

    /// From such bytes; `None` where they are none.
    pub fn from_bytes(bytes: &[u8]) -> Option<Self> {
        let (count, numbers) = bytes.split_first_chunk::<4>()?;
        let (numbers, rest) = numbers.as_chunks::<8>();
        let mut speeds: Vec<f64> = numbers.iter().map(|number| f64::from_le_bytes(*number)).collect();
        let count = u32::from_le_bytes(*count) as usize;
        // Plain figures have no speeds.
        let is_whole = rest.is_empty() && speeds.len() > count && (count == 0 || speeds.len().is_multiple_of(count));
        is_whole.then(|| {
            let values = speeds.split_off(count);
            Self { speeds, values }
        })
    }
}

/// Power of a torque in N m at so many rpm, W.
pub fn power(rpm: f64, torque: f64) -> f64 {
    rpm * torque * std::f64::consts::PI / 30.0
}

impl PlanOf {
    /// Of columns one after another, each over `speeds`.
    pub fn figures(&self, speeds: &[f64], columns: &[f64]) -> Figures {
        let mut columns = columns.chunks_exact(speeds.len());
        let mut next = || columns.next().unwrap_or_default();
        let (least, last) = judged(self.band, self.shift);
        let held_there = |values: &[f64]| -> Vec<f64> {
            let own = speeds.iter().zip(values).filter(|(rpm, _)| (least..=last).contains(*rpm));
            own.map(|(_, value)| *value).collect()
        };
        let most = |values: &[f64]| held_there(values).into_iter().fold(f64::NEG_INFINITY, f64::max);
        let torque = next();
        let octane = self.spark.then(&mut next).map(most);
        let (peak_pressure, opening, temperature, air_fuel) = (next(), next(), next(), next());
        let boost = self.charged.then(|| (most(next()) * 1e3, most(next()) * 1e3));
        let powers: Vec<f64> = speeds.iter().zip(torque).map(|(rpm, nm)| power(*rpm, *nm)).collect();
        let used = speeds.partition_point(|rpm| *rpm <= self.used_to).max(1);
        let (peak_power_rpm, peak_power) = peak(&speeds[..used], &powers[..used]);
        let curve: Vec<(f64, f64)> = speeds.iter().copied().zip(powers.iter().copied()).collect();
        let (from, to) = self.band;
        let third = |n: f64| from + n / 3.0 * (to - from);
        Figures {
            average_torque: mean(speeds, torque, (from, to)),
            thirds: [0.0, 1.0, 2.0].map(|n| mean(speeds, torque, (third(n), third(n + 1.0)))),
            peak_power,
            peak_power_rpm,
            power_wanted: self.wanted.map_or(peak_power, |rpm| held(&curve, rpm)),
            peak_torque: peak(&speeds[..used], &torque[..used]).1,
            octane,
            peak_pressure: most(peak_pressure) * 1e3,
            opening_pressure: most(opening) * 1e3,
            exhaust_temperature: most(temperature),
            air_fuel: held_there(air_fuel).into_iter().fold(f64::INFINITY, f64::min),
            boost,
        }
    }
}

/// Mean over a range by the trapezoid, between the speeds linear.
fn mean(speeds: &[f64], values: &[f64], (from, to): (f64, f64)) -> f64 {
    let curve: Vec<(f64, f64)> = speeds.iter().copied().zip(values.iter().copied()).collect();
    let within = curve.iter().copied().filter(|(rpm, _)| *rpm > from && *rpm < to);
    let ends = [(from, held(&curve, from)), (to, held(&curve, to))];
    let points: Vec<(f64, f64)> = [ends[0]].into_iter().chain(within).chain([ends[1]]).collect();
    let area: f64 = points.windows(2).map(|two| 0.5 * (two[0].1 + two[1].1) * (two[1].0 - two[0].0)).sum();
    area / (to - from)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn columns_come_back_from_their_bytes_to_the_last_bit_and_from_no_others() {
        let columns = Columns { speeds: vec![1000.0, 2000.1], values: vec![0.1, 0.2, 0.1 + 0.2, -0.0] };
        let bytes = columns.to_bytes();
        assert_eq!(Columns::from_bytes(&bytes).as_ref(), Some(&columns));
        let plain = Columns { speeds: Vec::new(), values: vec![6850.5] };
        assert_eq!(Columns::from_bytes(&plain.to_bytes()), Some(plain));
        for broken in [&bytes[..0], &bytes[..3], &bytes[..bytes.len() - 1], &bytes[..4 + 16]] {
            assert_eq!(Columns::from_bytes(broken), None);
        }
    }

    #[test]
    fn a_mean_over_thirds_of_a_straight_line_is_its_middle() {
        let speeds = [1000.0, 2000.0, 3000.0, 4000.0];
        let values = [10.0, 20.0, 30.0, 40.0];
        assert!((mean(&speeds, &values, (1000.0, 4000.0)) - 25.0).abs() < 1e-12);
        assert!((mean(&speeds, &values, (1500.0, 2500.0)) - 20.0).abs() < 1e-12);
    }
}
