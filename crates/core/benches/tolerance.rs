//! How long limits under tolerances take: a response of every limit, twenty thousand engines on them, and five hundred cylinders
//! in full. Run: `cargo bench --bench tolerance`.

#![allow(clippy::unwrap_used, clippy::expect_used, missing_docs)]

use divan::Bencher;
use std::hint::black_box;
use upper_lobe_core::build::Build;
use upper_lobe_core::candidate::{Resolved, Stages, motion_of_valves};
use upper_lobe_core::choose::{Responses, Run, Strays, Toleranced, model_of, respond, run_in_full, stands, toleranced};
use upper_lobe_core::document::Ledger;
use upper_lobe_core::given::{Given, Source};
use upper_lobe_core::limits::Findings;
use upper_lobe_core::tolerance::{Cast, simulate};

const DEMOS: [&str; 3] = [
    include_str!("../../../demo/tollgate-388-hauler.json"),
    include_str!("../../../demo/quarry-lane-427-strip.json"),
    include_str!("../../../demo/harbour-six-7-2-diesel.json"),
];

fn main() {
    divan::main();
}

struct Begun {
    resolved: Resolved,
    fields: Vec<Toleranced>,
    findings: Findings,
    cylinders: usize,
}

impl Begun {
    fn of(text: &str) -> Self {
        let (build, stages, ledger) = (Build::read(text).unwrap(), Stages::default(), Ledger::default());
        let views = build.candidates();
        let source = Source::new(&views[0], &ledger);
        let resolved = Resolved::new(Given::read(&source), &stages);
        let fields = toleranced(&resolved, &source);
        let findings = Findings { moved: motion_of_valves(&resolved, &stages), ..Findings::default() };
        let cylinders = resolved.given.engine.cylinders.unwrap() as usize;
        Self { resolved, fields, findings, cylinders }
    }

    fn cast(&self, engines: usize) -> Cast {
        Cast { cylinders: self.cylinders, banks: 2, engines, seed: 1 }
    }

    fn responses(&self) -> Responses {
        let stages = Stages::default();
        respond(&self.resolved, &self.fields, (&self.findings, &Strays::default()), (&stages, &|| false)).unwrap()
    }
}

#[divan::bench(args = [0, 1, 2], sample_count = 5)]
fn responses_of_every_limit(bencher: Bencher<'_, '_>, demo: usize) {
    let begun = Begun::of(DEMOS[demo]);
    bencher.bench(|| black_box(begun.responses()));
}

#[divan::bench(args = [0, 1, 2], sample_count = 5)]
fn twenty_thousand_engines(bencher: Bencher<'_, '_>, demo: usize) {
    let begun = Begun::of(DEMOS[demo]);
    let responses = begun.responses();
    let model = model_of(&begun.fields, &responses);
    bencher.bench(|| black_box(simulate(&model, &begun.cast(20_000))));
}

#[divan::bench(args = [0, 1, 2], sample_count = 3)]
fn five_hundred_cylinders_in_full(bencher: Bencher<'_, '_>, demo: usize) {
    let begun = Begun::of(DEMOS[demo]);
    let (responses, cast) = (begun.responses(), begun.cast(500 / begun.cylinders + 1));
    bencher.bench(|| {
        run_in_full(&begun.resolved, &begun.fields, &begun.findings, &responses.limits, (Run::Metal, &cast), &|| false)
    });
}

#[divan::bench(args = [0, 1, 2], sample_count = 5)]
fn gaps_and_limits_of_the_window(bencher: Bencher<'_, '_>, demo: usize) {
    let begun = Begun::of(DEMOS[demo]);
    bencher.bench(|| black_box(stands(&begun.resolved, &|_| begun.findings.clone(), (12.0, 12.0), &Stages::default())));
}
