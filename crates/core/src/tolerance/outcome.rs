//! What engines drawn by lot come to for one limit.

use super::draw::Cast;

/// Bars of the picture of a spread.
const BARS: usize = 32;

/// What is gathered of one limit while engines are drawn.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Spreading {
    /// What there is in the first cylinder of every engine.
    haves: Vec<f64>,
    /// What is left over in the worst cylinder of every engine.
    worst: Vec<f64>,
    /// Cylinders that fail.
    fails: usize,
}

impl Spreading {
    /// One engine more: what there is in its first cylinder, and what is left in each.
    pub fn note<'a>(&mut self, have: f64, margins: impl Iterator<Item = &'a f64>) {
        let mut worst = f64::INFINITY;
        for margin in margins {
            self.fails += usize::from(*margin < 0.0);
            worst = worst.min(*margin);
        }
        self.haves.push(have);
        self.worst.push(worst);
    }

    /// Those of another batch behind these.
    pub fn extend(&mut self, other: Self) {
        self.haves.extend(other.haves);
        self.worst.extend(other.worst);
        self.fails += other.fails;
    }

    /// In figures.
    pub fn outcome(mut self, cast: &Cast) -> Outcome {
        let count = self.haves.len().max(1) as f64;
        let mean = self.haves.iter().sum::<f64>() / count;
        let sd = (self.haves.iter().map(|own| (own - mean).powi(2)).sum::<f64>() / (count - 1.0).max(1.0)).sqrt();
        self.haves.sort_unstable_by(f64::total_cmp);
        self.worst.sort_unstable_by(f64::total_cmp);
        let any = self.worst.partition_point(|margin| *margin < 0.0);
        let [p001, p01, p50, p99, p999] = [0.001, 0.01, 0.5, 0.99, 0.999].map(|share| quantile(&self.haves, share));
        let width = (p999 - p001) / BARS as f64;
        let mut bars = vec![0.0; if width > 0.0 { BARS } else { 0 }];
        for own in self.haves.iter().filter(|_| width > 0.0) {
            let place = ((own - p001) / width).clamp(0.0, BARS as f64 - 1.0);
            bars[place as usize] += 1.0 / count;
        }
        Outcome {
            mean,
            sd,
            p01,
            p50,
            p99,
            fails_one: self.fails as f64 / (count * cast.cylinders as f64),
            fails_any: any as f64 / count,
            from: p001,
            width,
            bars,
            worst: self.worst,
        }
    }
}

/// Value below which a share of sorted values lies, on straight lines between them.
pub fn quantile(sorted: &[f64], share: f64) -> f64 {
    let Some(last) = sorted.len().checked_sub(1) else { return f64::NAN };
    let place = share * last as f64;
    let low = (place as usize).min(last);
    sorted[low] + (place - low as f64) * (sorted[(low + 1).min(last)] - sorted[low])
}

/// One limit over all engines.
#[derive(Debug, Clone, PartialEq)]
pub struct Outcome {
    /// Mean of what there is in one cylinder.
    pub mean: f64,
    /// Standard deviation of it.
    pub sd: f64,
    /// One of a hundred lies below.
    pub p01: f64,
    /// Half of all lie below.
    pub p50: f64,
    /// Ninety-nine of a hundred lie below.
    pub p99: f64,
    /// Share of cylinders that fail.
    pub fails_one: f64,
    /// Share of engines with any that fails.
    pub fails_any: f64,
    /// Where the first bar of the picture begins.
    pub from: f64,
    /// How wide each bar is.
    pub width: f64,
    /// Share of cylinders in every bar.
    pub bars: Vec<f64>,
    /// What is left over in the worst cylinder of every engine, rising.
    worst: Vec<f64>,
}

impl Outcome {
    /// How much less than `middle` the worst cylinder of an engine has left, at a share of engines.
    pub fn lost_at(&self, middle: f64, share: f64) -> f64 {
        (middle - quantile(&self.worst, share)).max(0.0)
    }

    /// How much more has to be left so that no more than a share of engines fails.
    pub fn more_for(&self, wanted: f64) -> f64 {
        (-quantile(&self.worst, wanted)).max(0.0)
    }
}
