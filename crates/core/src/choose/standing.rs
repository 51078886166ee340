//! How a candidate stands against every limit, as one who searches sees it: by how much it breaks what may not be broken.

use crate::document::Side;
use crate::limits::{Finding, Judged, Judgement, Rule, titled};
use crate::report::Verdict;

/// A limit on one side.
#[derive(Clone, Copy)]
pub struct Bound {
    /// The rule.
    pub rule: &'static Rule,
    /// The side, where it has sides.
    pub side: Option<Side>,
}

impl Bound {
    /// As it is called.
    pub fn title(&self) -> String {
        titled(self.rule.title, self.side)
    }
}

impl PartialEq for Bound {
    fn eq(&self, other: &Self) -> bool {
        std::ptr::eq(self.rule, other.rule) && self.side == other.side
    }
}

impl std::fmt::Debug for Bound {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        write!(f, "{} {:?}", self.rule.id, self.side)
    }
}

/// Share of what is needed that counts as much as what makes a margin tight, where nothing does.
const A_SHARE: f64 = 0.05;

/// One limit's margin, SI, and what counts as much of it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Margin {
    /// Which limit.
    pub bound: Bound,
    /// What is left over, SI.
    pub left: f64,
    /// Least that is needed, SI; zero where there is only a most.
    pub need: f64,
    /// As much as makes a margin of this limit tight: what margins of different limits are compared by.
    pub scale: f64,
    /// As much of it is kept for what parts are off by when they are built, SI.
    pub reserve: f64,
    /// Whether it may be broken: advice.
    pub is_advice: bool,
}

/// What has to be left of limits for what parts are off by when they are built, SI.
pub type Reserves = Vec<(Bound, f64)>;

/// What is kept of limits, and which of them cams and parts move at all.
#[derive(Debug, Clone, Default)]
pub struct Kept {
    /// What is kept.
    pub reserves: Reserves,
    /// Limits that some cam or part of the search moves.
    pub moved: Vec<Bound>,
}

impl Margin {
    /// Of a rule held against a candidate; `None` where it is unknown.
    pub fn of(judged: &Judged) -> Option<Self> {
        let finding = judged.found.as_ref().ok()?;
        let left = finding.margin();
        left.is_finite().then(|| Self {
            bound: Bound { rule: judged.rule, side: judged.side },
            left,
            need: finding.min.unwrap_or(0.0),
            scale: scale(finding),
            reserve: 0.0,
            is_advice: finding.is_advice,
        })
    }

    /// What is left beyond its reserve, in its scale.
    pub fn room(&self) -> f64 {
        (self.left - self.reserve) / self.scale
    }

    /// By how much it is broken, or its reserve is, in its scale; zero where it is met or is advice.
    pub fn broken(&self) -> f64 {
        if self.is_advice { 0.0 } else { (-self.room() - 1e-9).max(0.0) }
    }

    /// The same as things are given, without a reserve.
    #[must_use]
    pub const fn as_given(mut self) -> Self {
        self.reserve = 0.0;
        self
    }

    /// The same with its reserve of `reserves`, all that there are of it together.
    #[must_use]
    pub fn keeping(mut self, reserves: &[(Bound, f64)]) -> Self {
        let own = reserves.iter().filter(|(bound, _)| *bound == self.bound);
        self.reserve = own.map(|(_, reserve)| reserve).sum();
        self
    }
}

fn scale(finding: &Finding) -> f64 {
    let need = finding.min.or(finding.max).unwrap_or(0.0).abs();
    if finding.tight > 0.0 { finding.tight } else { (A_SHARE * need).max(1e-9) }
}

/// How a candidate stands.
#[derive(Debug, Clone, PartialEq)]
pub struct Standing {
    /// Every known margin, in the order of the rules.
    pub margins: Vec<Margin>,
    /// What never goes together and is there all the same.
    pub incompatible: Vec<&'static str>,
    /// Rules of which something is not known.
    pub unknown: usize,
}

impl Standing {
    /// Of a judgement.
    pub fn of(judgement: &Judgement) -> Self {
        Self {
            margins: judgement.figures.iter().filter_map(Margin::of).collect(),
            incompatible: judgement.incompatible.iter().map(|pair| pair.id).collect(),
            unknown: judgement.figures.iter().filter(|judged| judged.verdict() == Verdict::Unknown).count(),
        }
    }

    /// The same with so much of every limit in reserve.
    #[must_use]
    pub fn keeping(mut self, reserves: &[(Bound, f64)]) -> Self {
        self.margins.iter_mut().for_each(|margin| *margin = margin.keeping(reserves));
        self
    }

    /// The same as things are given, without reserves.
    #[must_use]
    pub fn as_given(&self) -> Self {
        self.clone().keeping(&[])
    }

    /// The margin of one limit.
    pub fn margin(&self, bound: Bound) -> Option<&Margin> {
        self.margins.iter().find(|margin| margin.bound == bound)
    }

    /// By how much everything is broken, each in its own scale.
    pub fn broken(&self) -> f64 {
        self.margins.iter().map(Margin::broken).sum::<f64>() + self.incompatible.len() as f64
    }

    /// Limits that are broken, worst first.
    pub fn fails(&self) -> Vec<&Margin> {
        let mut fails: Vec<&Margin> = self.margins.iter().filter(|margin| margin.broken() > 0.0).collect();
        fails.sort_by(|a, b| b.broken().total_cmp(&a.broken()));
        fails
    }
}
