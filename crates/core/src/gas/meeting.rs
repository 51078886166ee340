//! Where primaries meet, and the pipe behind it.

use super::breather::{Breather, hot_pipe};
use super::duct::{Duct, cells_of};
use super::ends::End;
use super::junction::{Branch, Junction};
use super::setup::{Around, Collector, Mesh, Setup};
use super::state::{Gas, State};

/// Wall of the collector's pipe over that of a primary's, and the gas that waits in it, K (assumed).
const COLLECTOR_WALL: f64 = -50.0;
pub(super) const COLLECTOR_GAS: f64 = 800.0;

/// Where primaries meet, and the pipe behind it.
pub(super) struct Meeting {
    members: Vec<usize>,
    junction: Junction,
    pub pipe: Duct,
}

impl Meeting {
    pub fn new(collector: &Collector, setup: &Setup, mesh: &Mesh, around: &Around) -> Option<Self> {
        let start = State { burned: 1.0, ..Gas::BURNED.state(around.back, COLLECTOR_GAS, 0.0) };
        Some(Self {
            members: collector.members.clone(),
            junction: Junction {
                pressure: around.back,
                temperature: COLLECTOR_GAS,
                burned: 1.0,
                kept: collector.kept,
                gain: 0.0,
            },
            pipe: pipe(collector, setup, mesh, start)?,
        })
    }

    /// Goes on on another mesh; `None` when the pipe cannot be.
    pub fn remesh(&mut self, collector: &Collector, setup: &Setup, mesh: &Mesh) -> Option<()> {
        self.pipe = pipe(collector, setup, mesh, self.pipe.state(0))?.filled_from(&self.pipe);
        Some(())
    }

    /// Finds the states where the members' primaries meet, and steps the pipe behind.
    pub fn join(
        &mut self,
        cylinders: &[Breather],
        ends: &mut [(State, State)],
        (branches, faces): (&mut Vec<Branch>, &mut [State]),
        open: &End,
        time: f64,
    ) {
        let [first, last] = self.pipe.predict(time);
        branches.clear();
        branches.extend(self.members.iter().map(|i| Branch {
            inside: ends[*i].1,
            outward: 1.0,
            area: cylinders[*i].outlet_area(),
        }));
        branches.push(Branch { inside: first, outward: -1.0, area: self.pipe.end_areas()[0] });
        let faces = &mut faces[..branches.len()];
        self.junction.join(Gas::BURNED, branches, faces);
        for (i, face) in self.members.iter().zip(&*faces) {
            ends[*i].1 = *face;
        }
        let outlet = open.face(Gas::BURNED, &last, 1.0);
        self.pipe.finish(time, [faces[faces.len() - 1], outlet]);
    }
}

fn pipe(collector: &Collector, setup: &Setup, mesh: &Mesh, start: State) -> Option<Duct> {
    let (length, area) = collector.pipe;
    let wall = hot_pipe(setup, setup.unmeasured.primary_wall + COLLECTOR_WALL);
    Duct::new(Gas::BURNED, length, cells_of(length, mesh.cells.1), |_| area, Some(wall), start)
}
