//! What an order costs and drags along: parts with their state, what is left to buy against the budget, machining, what never goes
//! together.

use crate::build::Build;
use crate::candidate::{Resolved, Stages};
use crate::document::{Ledger, Node, Side, in_a_sentence};
use crate::given::{Given, Of, Place, Source};
use crate::limits::{incompatibilities, titled};
use crate::parts::{Drag, drags_between};
use crate::quantity::{Dimension, Money, Shown, UnitSystem, shown};
use crate::report::{Bill, Machining, Named, NeverTogether, OrderPart, PartState};
use crate::train::preload::worksheet;
use crate::words::{Obtained, Word};

/// What is bought with it, each once, then what is bought besides.
pub(super) fn parts(source: &Source<'_>) -> Vec<OrderPart> {
    let build = source.node(Of::Build, Side::Intake);
    let bought = build.children("bought");
    let mut found: Vec<OrderPart> = Vec::new();
    // Both sides have it together, or each its own: one price each.
    let mut seen: Vec<[String; 2]> = Vec::new();
    for of in [Of::Cam, Of::Lifter, Of::Pushrod, Of::Rocker, Of::Valve, Of::Retainer, Of::Spring] {
        for side in Side::BOTH {
            let node = source.node(of, side);
            let (name, at) = (node.word("part"), ["part", "price"].map(|key| node.path_of(key)));
            if seen.contains(&at) || (name.is_none() && price_of(&node).is_none()) {
                continue;
            }
            seen.push(at);
            let name = name.unwrap_or("without a name");
            let own = bought.iter().find(|own| is_called(own, name));
            let price = own.and_then(price_of).or_else(|| price_of(&node));
            found.push(part(in_a_sentence(&format!("{of:?}")), name, own, price));
        }
    }
    let besides = bought.iter().filter(|own| !found.iter().any(|part| is_called(own, &part.name)));
    let besides: Vec<OrderPart> =
        besides.map(|own| part("besides".to_owned(), &own.text("part"), Some(own), price_of(own))).collect();
    found.extend(besides);
    found
}

fn is_called(bought: &Node<'_>, name: &str) -> bool {
    bought.text("part").trim().eq_ignore_ascii_case(name.trim())
}

fn price_of(node: &Node<'_>) -> Option<f64> {
    node.quantity::<Money>("price").map(Money::si)
}

fn part(kind: String, name: &str, bought: Option<&Node<'_>>, price: Option<f64>) -> OrderPart {
    let word = bought.and_then(|own| Obtained::from_word(own.word("state")?));
    OrderPart {
        kind,
        name: name.to_owned(),
        price: price.map(|price| shown(price, Dimension::Money)),
        money: price,
        state: match word.unwrap_or(Obtained::ToBuy) {
            Obtained::ToBuy => PartState::ToBuy,
            Obtained::Ordered => PartState::Ordered,
            Obtained::Here => PartState::Here,
        },
        lead_time: bought.map(|own| own.text("lead_time")).filter(|text| !text.is_empty()),
        note: bought.map(|own| own.text("note")).filter(|text| !text.is_empty()),
    }
}

/// Sums of the parts against the budget; `None` where no price is given.
pub(super) fn bill(parts: &[OrderPart], given: &Given) -> Option<Bill> {
    let of = |keep: fn(&OrderPart) -> bool| {
        parts.iter().filter(|part| keep(part)).filter_map(|part| part.money).sum::<f64>() + 0.0
    };
    let (total, left) = (of(|_| true), of(|part| part.state == PartState::ToBuy));
    let unpriced = parts.iter().filter(|part| part.money.is_none()).count();
    let money = |amount: f64| shown(amount, Dimension::Money);
    let budget = given.target.budget.map(Money::si);
    parts.iter().any(|part| part.money.is_some()).then(|| Bill {
        total: money(total),
        spent: money(total - left),
        left: money(left),
        budget: budget.map(money),
        over: budget.filter(|budget| total > *budget).map(|budget| money(total - budget)),
        unpriced,
    })
}

/// What the candidate drags along beside the one that is in the engine now; `None` where nobody said which that is, or it is this one.
pub(super) fn dragged(build: &Build, id: &str, after: &Resolved, stages: &Stages) -> Option<Vec<Drag>> {
    let views = build.candidates();
    let existing = build.value().get("target")?.get("existing")?.as_str()?;
    let view = views.iter().find(|view| view.id == existing && view.id != id)?;
    let ledger = Ledger::default();
    let before = Resolved::new(Given::read(&Source::new(view, &ledger)), stages);
    Some(drags_between(&before, after, UnitSystem::Inch))
}

/// Work on castings and valves that is planned, and what it does to the preload.
pub(super) fn machining(resolved: &Resolved, source: &Source<'_>) -> Vec<Machining> {
    let mut found: Vec<Machining> = Vec::new();
    for side in Side::BOTH {
        let Ok(lift) = &resolved.side(side).lift else { continue };
        for work in worksheet(&resolved.train(side).work, resolved.port(side).valve_angle, lift.ratio) {
            let Named { label, .. } = Named::at(source.path(Place::new(Of::PreloadWork, work.key, side)));
            let by = source.node(Of::PreloadWork, side).text(work.key);
            let own = Machining {
                what: format!("{label} {by}"),
                preload: shown(work.change, Dimension::Length),
                then: then(work.key).to_owned(),
            };
            if !found.contains(&own) {
                found.push(own);
            }
        }
    }
    found
}

/// What moves with a piece of work, to be measured again.
fn then(key: &str) -> &'static str {
    match key {
        "head_milled" => {
            "fill the chambers again; piston to valve, compression, intake face and pushrod length move with it"
        }
        "deck_milled" => {
            "measure the decks again; piston to head and to valve, compression and pushrod length move with it"
        }
        "gasket_thicker" => "compression, quench and every clearance to the piston move with it",
        "stem_higher" => "measure stem heights again; rocker geometry moves with it",
        "lash_cap" => "its mass rides on the valve; rocker geometry moves with it",
        "base_circle_smaller" => "lifters sit lower; look at the oil band and at the pushrods",
        "stand_shim" => "rocker geometry moves with it; look at the pattern on the tip",
        _ => "measure preload or lash again",
    }
}

/// What never goes together in this candidate.
pub(super) fn conflicts(resolved: &Resolved) -> Vec<NeverTogether> {
    let told = |own: crate::limits::Incompatible| NeverTogether {
        title: titled(own.title, own.side),
        have: own.have,
        need: own.need,
        why: own.why.to_owned(),
    };
    incompatibilities(resolved).into_iter().map(told).collect()
}

/// What the parts of a candidate cost; `None` where no price is given.
pub fn money(build: &Build, id: &str) -> Option<Shown> {
    let views = build.candidates();
    let view = views.iter().find(|view| view.id == id)?;
    let given = Given::read(&Source::new(view, &Ledger::default()));
    (!given.prices.is_empty()).then(|| shown(given.money(), Dimension::Money))
}
