//! One session as the document holds it, and what it is judged with.

use crate::candidate::blocks::closed_gap;
use crate::candidate::resolve::Resolved;
use crate::clearance::{PistonClearance, closest};
use crate::document::{Node, Side};
use crate::given::Source;
use crate::words::{Layout, SessionKind, Word};

/// One session as the document holds it.
pub(super) struct Session<'a> {
    pub node: Node<'a>,
    pub kind: SessionKind,
    pub side: Side,
    pub cylinder: usize,
}

impl<'a> Session<'a> {
    pub fn read(node: Node<'a>) -> Option<Self> {
        Some(Self {
            kind: SessionKind::from_word(node.word("kind")?)?,
            side: Side::of_key(node.word("side")?)?,
            cylinder: node.number("cylinder").map_or(1, |cylinder| cylinder as usize),
            node,
        })
    }

    /// Whether it is of the candidate `id`, the first of the document when `is_first`.
    pub fn is_of(&self, id: &str, is_first: bool) -> bool {
        self.node.word("candidate").map_or(is_first, |own| own == id)
    }
}

/// What a session is judged with.
pub(super) struct Bench<'a> {
    pub inputs: &'a Resolved,
    pub source: &'a Source<'a>,
    /// All sessions of the candidate: one may need what another read.
    pub all: &'a [Session<'a>],
}

impl Bench<'_> {
    /// Rows of cylinders.
    pub fn banks(&self) -> usize {
        if self.inputs.given.engine.layout.is_some_and(Layout::is_vee) { 2 } else { 1 }
    }

    /// Where this cam brings a valve and the piston nearest to each other; `None` while the frame or the cam is not known.
    pub fn closest(&self, side: Side) -> Option<PistonClearance> {
        let (gap, travel) = (closed_gap(self.inputs, side).ok()?, self.inputs.travel(side).ok()?);
        Some(closest(&gap, &travel, &gap.over_a_turn()))
    }
}
