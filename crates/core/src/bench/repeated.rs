//! Readings of one size taken again: their mean, and how far it may be off.

use statrs::distribution::{ContinuousCDF, StudentsT};

/// Several readings of one size.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Repeated {
    /// How many.
    pub count: usize,
    /// Their mean.
    pub mean: f64,
    /// Largest less smallest.
    pub spread: f64,
    /// Standard deviation of one reading; `None` of a single one.
    pub sd: Option<f64>,
}

/// What several readings come to; `None` without any.
pub fn repeated(readings: &[f64]) -> Option<Repeated> {
    let count = readings.len();
    if count == 0 {
        return None;
    }
    let mean = readings.iter().sum::<f64>() / count as f64;
    let (least, most) = readings.iter().fold((f64::MAX, f64::MIN), |(a, b), own| (a.min(*own), b.max(*own)));
    let squares = readings.iter().map(|own| (own - mean).powi(2)).sum::<f64>();
    let sd = (count > 1).then(|| (squares / (count - 1) as f64).sqrt());
    Some(Repeated { count, mean, spread: most - least, sd })
}

impl Repeated {
    /// Half width that holds 95 of 100 about the mean: `t s/sqrt n`, Student's t of n - 1 [JCGM 100, 4.2.3 and G.3]; `None` of a
    /// single reading, of which nothing is known but the tool.
    pub fn half_width(&self) -> Option<f64> {
        let t = student(self.count.checked_sub(1)?)?;
        Some(t * self.sd? / (self.count as f64).sqrt())
    }
}

/// Standard deviation of one reading, pooled over several sizes that each were read again:
/// `sqrt(sum (n_i - 1) s_i^2/sum (n_i - 1))` [JCGM 100, 4.2.4; ISO 5725-2 names it the repeatability standard deviation]. `None`
/// while nothing was read twice.
pub fn pooled(sizes: &[Repeated]) -> Option<f64> {
    let own = sizes.iter().filter_map(|size| Some(((size.count - 1) as f64, size.sd?)));
    let (freedom, squares) = own.fold((0.0, 0.0), |(n, sum), (freedom, sd)| (n + freedom, sum + freedom * sd * sd));
    (freedom > 0.0).then(|| (squares / freedom).sqrt())
}

/// Student's t that holds 95 of 100 on both sides.
fn student(freedom: usize) -> Option<f64> {
    Some(StudentsT::new(0.0, 1.0, freedom as f64).ok().filter(|_| freedom > 0)?.inverse_cdf(0.975))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_mean_is_as_sure_as_the_published_table_says() {
        // Two-sided t at 95 % [JCGM 100, table G.2]: 12.71, 4.30, 2.78, 2.26 at 1, 2, 4, 9 degrees of freedom.
        for (freedom, t) in [(1, 12.71), (2, 4.30), (4, 2.78), (9, 2.26)] {
            assert!((student(freedom).unwrap() - t).abs() < 0.006, "{freedom}");
        }
        // By hand: .101, .103, .102: mean .102, s .001, 4.303 x .001/sqrt 3 = .00248.
        let own = repeated(&[0.101, 0.103, 0.102]).unwrap();
        assert!((own.mean - 0.102).abs() < 1e-12 && (own.sd.unwrap() - 0.001).abs() < 1e-12);
        assert!((own.half_width().unwrap() - 0.002_484).abs() < 1e-6);
        assert_eq!(repeated(&[0.1]).unwrap().half_width(), None);
        assert_eq!(repeated(&[]), None);
    }

    #[test]
    fn what_was_read_twice_tells_how_a_tool_repeats() {
        // Two pairs that differ by 2 and by 4: variances 2 and 8, pooled sqrt 5.
        let sizes = [repeated(&[1.0, 3.0]).unwrap(), repeated(&[10.0, 14.0]).unwrap(), repeated(&[7.0]).unwrap()];
        assert!((pooled(&sizes).unwrap() - 5.0_f64.sqrt()).abs() < 1e-12);
        assert_eq!(pooled(&sizes[2..]), None);
    }
}
