//! The lines of an assembly (common practice, no source): which belong to this engine, how each is done, what it waits for.

use crate::candidate::Resolved;
use crate::document::Side;
use crate::words::{AntiRotation, CamDrive, LifterKind, SessionKind};

/// One line of the work.
pub(super) struct Line {
    pub id: &'static str,
    pub phase: &'static str,
    pub what: &'static str,
    pub how: String,
    pub waits: &'static [&'static str],
    pub session: Option<SessionKind>,
}

/// What is known of the engine that changes the work.
struct Engine {
    kind: Option<LifterKind>,
    anti_rotation: Option<AntiRotation>,
    drive: Option<CamDrive>,
    has_pockets: bool,
}

impl Engine {
    fn is_flat(&self) -> bool {
        self.kind.is_some_and(LifterKind::is_flat)
    }

    fn is_roller(&self) -> bool {
        self.kind.is_some_and(LifterKind::is_roller)
    }

    fn is_solid(&self) -> bool {
        self.kind.is_some_and(LifterKind::is_solid)
    }

    fn is_hydraulic(&self) -> bool {
        self.kind.is_some_and(LifterKind::is_hydraulic)
    }
}

/// Every line, each after those that it waits for.
pub(super) fn lines(inputs: &Resolved) -> Vec<Line> {
    let lifter = &inputs.train(Side::Intake).lifter;
    let engine = Engine {
        kind: lifter.kind,
        anti_rotation: lifter.anti_rotation,
        drive: inputs.given.engine.cam_drive,
        has_pockets: Side::BOTH.iter().any(|side| inputs.given.pocket(*side).is_given),
    };
    let parts = [
        block(&engine),
        cam(&engine),
        heads(),
        train(&engine),
        clearances(&engine),
        close(&engine),
        first_run(&engine),
    ];
    parts.into_iter().flatten().collect()
}

fn line(
    (id, phase): (&'static str, &'static str),
    what: &'static str,
    how: impl Into<String>,
    waits: &'static [&'static str],
) -> Line {
    Line { id, phase, what, how: how.into(), waits, session: None }
}

impl Line {
    /// The same, resting on a session at the bench.
    fn measured(self, kind: SessionKind) -> Self {
        Self { session: Some(kind), ..self }
    }
}

const BLOCK: &str = "Block";
const CAM: &str = "Cam and timing";
const HEADS: &str = "Heads";
const TRAIN: &str = "Valve train";
const CLEARANCES: &str = "Clearances";
const CLOSE: &str = "Closing up";
const RUN: &str = "First run";

fn block(engine: &Engine) -> Vec<Line> {
    let bodies = if engine.is_roller() {
        "and turns"
    } else {
        "and turns; a flat foot that sticks does not turn, and takes its lobe"
    };
    vec![
        line(
            ("oil_ways", BLOCK),
            "Oil ways clear",
            "every plug out, brushed and blown through, plugs back with sealant; nothing runs before",
            &[],
        ),
        line(
            ("lifter_bores", BLOCK),
            "Lifters free in their bores",
            format!("bores clean and without burrs; every lifter falls through by hand {bodies}"),
            &["oil_ways"],
        ),
        line(
            ("cam_bearings", BLOCK),
            "Cam bearings",
            "oil holes in line; the cam turns in them by two fingers",
            &["oil_ways"],
        ),
        line(("decks", BLOCK), "Decks measured", "both edges of the pistons at both ends of each bank", &["oil_ways"])
            .measured(SessionKind::Decks),
    ]
}

fn cam(engine: &Engine) -> Vec<Line> {
    let lube = if engine.is_flat() {
        "the maker's paste on every lobe and foot; oil on the journals"
    } else {
        "assembly oil on the journals. Lobes: one school oils them plentifully, the other leaves them nearly dry so that the wheels turn at once; the maker's sheet decides. No paste for flat cams on rollers"
    };
    let drive = match engine.drive {
        Some(CamDrive::Gear) => "gears marked, backlash read at four places; bolts finger-tight until it is phased",
        Some(CamDrive::Belt) => "belt without twist, its tensioner loose until it is phased",
        _ => {
            "chain and gears on, bolts finger-tight until it is phased; thrust play read; a wider chain wants its spacers and room in the cover"
        }
    };
    vec![
        line(("cam_card", CAM), "The cam is the one that was ordered", "its card against the order, lobes by caliper or dial", &[]).measured(SessionKind::CamCard),
        line(("cam_in", CAM), "Cam in", format!("two long handle bolts, no knock against a bearing; {lube}"), &["lifter_bores", "cam_bearings", "cam_card"]),
        line(("drive_on", CAM), "Drive on, loose", drive, &["cam_in"]),
        line(("top", CAM), "Top dead centre found", "piston stop from both sides, the pointer bent to the middle", &["oil_ways"]),
        line(("degree_in", CAM), "Degreed in", "before any pushrod is measured: what is ground differs from its card by up to a degree, and the drive adds its own", &["drive_on", "top"]).measured(SessionKind::DegreeIn),
        line(("drive_tight", CAM), "Drive tight", "new bolts where they are for one use, thread lock or plate as the maker says, torque; then the wheel read once more", &["degree_in"]),
    ]
}

fn heads() -> Vec<Line> {
    vec![
        line(
            ("head_checked", HEADS),
            "Heads checked",
            "cracks looked for, seats run true about their guides, play of every guide; new locks with new valves",
            &[],
        )
        .measured(SessionKind::Head),
        line(
            ("heights", HEADS),
            "Installed heights shimmed",
            "every valve without shims, then the fewest that even them; locators and seals in",
            &["head_checked"],
        )
        .measured(SessionKind::InstalledHeights),
        line(
            ("springs", HEADS),
            "Springs tested and placed",
            "each on the tester at seat and full lift, with the guard closed; matched sets",
            &["heights"],
        )
        .measured(SessionKind::Springs),
        line(
            ("heads_on", HEADS),
            "Heads on",
            "dowels in, gasket the right way round, new bolts or studs where they are for one use, torque in the maker's order and steps",
            &["drive_tight", "decks", "head_checked"],
        ),
    ]
}

fn train(engine: &Engine) -> Vec<Line> {
    let bars = match engine.anti_rotation {
        Some(AntiRotation::LinkBar) => {
            "link bars the right way round, clear of the block over the whole stroke; wheels in line with their lobes"
        }
        Some(AntiRotation::GuideTray) => "guides and tray seated on their flats; wheels in line with their lobes",
        Some(AntiRotation::Keyway) => "keys in their ways; wheels in line with their lobes",
        _ if engine.is_flat() => "new lifters on a new cam, each where it stays; a used one only on its own lobe",
        _ => "each where it stays",
    };
    let set = if engine.is_solid() {
        "lash set cold by what heat adds, each pair at its cylinder's firing top dead centre"
    } else {
        "preload after all work, each pair at its cylinder's firing top dead centre, lifters not pumped up"
    };
    vec![
        line(("lifters_in", TRAIN), "Lifters in", bars, &["drive_tight", "lifter_bores"]),
        line(("stems", TRAIN), "Stem heights", "every tip above the seat of its spring", &["head_checked"])
            .measured(SessionKind::Stems),
        line(
            ("pushrods", TRAIN),
            "Pushrods measured and placed",
            "adjustable one at every place, the pattern on the tip looked at; guide plates in line first",
            &["degree_in", "heads_on", "lifters_in"],
        )
        .measured(SessionKind::Pushrods),
        line(("lift", TRAIN), "Lift under light and real spring", "what the train gives under load", &["pushrods"])
            .measured(SessionKind::LiftCheck),
        line(("set", TRAIN), if engine.is_solid() { "Lash set" } else { "Preload set" }, set, &["pushrods", "springs"])
            .measured(SessionKind::Adjustment),
    ]
}

fn clearances(engine: &Engine) -> Vec<Line> {
    let mut lines = vec![
        line(
            ("drops", CLEARANCES),
            "Valve to piston",
            "light springs, dial on the retainer, about overlap top dead centre; intake and exhaust",
            &["pushrods"],
        )
        .measured(SessionKind::ValveDrop),
    ];
    if engine.has_pockets {
        lines.push(
            line(
                ("clay", CLEARANCES),
                "Pocket walls by clay",
                "oiled clay, two turns by hand, real springs or solid lifters",
                &["drops"],
            )
            .measured(SessionKind::Clay),
        );
    }
    lines.push(line(
        ("hardware", CLEARANCES),
        "Retainers, rockers, covers",
        "retainer to seal at full lift, rocker to stud and retainer, cover and baffles clear",
        &["set"],
    ));
    lines.push(line(
        ("turned", CLEARANCES),
        "Turned over twice by hand",
        "plugs out, nothing touches, nothing binds; stop at the first resistance",
        &["drops", "set", "hardware"],
    ));
    lines
}

fn close(engine: &Engine) -> Vec<Line> {
    let oil = if engine.is_hydraulic() {
        "until it comes out of every rocker; the lifters fill with it"
    } else {
        "until it comes out of every rocker"
    };
    vec![
        line(
            ("leaks", CLOSE),
            "Leak-down",
            "each cylinder at its firing top dead centre, crank held: it may turn by itself",
            &["turned"],
        )
        .measured(SessionKind::LeakDown),
        line(
            ("gear", CLOSE),
            "Distributor or pump gear",
            "the gear that goes with this core, oiled; its height and wear pattern looked at",
            &["turned"],
        ),
        line(("primed", CLOSE), "Oil primed", format!("pump driven by hand {oil}; new filter filled"), &["turned"]),
        line(
            ("covers", CLOSE),
            "Covers and intake",
            "gaskets of the right height after milling; nothing left in the valley",
            &["primed", "leaks"],
        ),
    ]
}

fn first_run(engine: &Engine) -> Vec<Line> {
    let how = if engine.is_flat() {
        "spring load cut first: inner springs out, or low-ratio rockers; oil with the additives that its maker asks for. It fires at once or not at all: no cranking about. 2,000 to 2,500 rpm, up and down, 20 to 30 minutes, oil pressure and every lobe's noise watched; then oil and filter new"
    } else {
        "oil as the maker of the lifters asks; fast idle until it is warm, no load and no high speed for 20 minutes, ears on the train; then oil and filter looked at"
    };
    let after = if engine.is_solid() {
        "lash hot, each pair; head bolts as the maker says"
    } else {
        "noise, preload and head bolts as the maker says"
    };
    let mut lines = vec![line(("run_in", RUN), "Run in", how, &["covers", "gear", "primed"])];
    if engine.is_flat() {
        lines.push(line(
            ("full_load", RUN),
            "Real spring load",
            "inner springs or real rockers back, each lobe and foot looked at first",
            &["run_in"],
        ));
    }
    lines.push(line(("after", RUN), "After the first run", after, &["run_in"]));
    lines.push(
        line(("compression", RUN), "Compression", "warm, throttle open, plugs out", &["run_in"])
            .measured(SessionKind::Compression),
    );
    lines
}
