//! Every object of the document a candidate is computed from, its fields in SI or as enums. Their meanings, ranges and
//! defaults stand in the table of fields (`document/table`).

use super::fields::{Fields, objects};
use super::place::{Of, Place};
use super::value::{BoostRow, FlankChecks, Fuelling, Profile, Rows, Value};
use crate::document::{Node, Side};
use crate::quantity::{
    Angle, Area, Flow, Force, Length, Mass, Money, Octane, Pressure, Speed, SpringRate, Temperature, Torque, Volume,
};
use crate::words::{
    Accessories, AntiRotation, CalibratedBy, CamDrive, CamGear, Casting, ChainRows, ChargerKind, ClearanceSchool,
    Combustion, Core, DistributorGear, DynoKind, ExhaustManifold, FaceSpot, FuelKind, GroundFor, Guide, Induction,
    IntakeManifold, Layout, LifterKind, LifterVariant, LightMetal, MixtureKind, Mount, PreloadSchool, PullAir,
    RockerGeometry, RodMaterial, Snout, SpringForm, Tip, Use, ValveMaterial, Wire, Word,
};
use std::sync::Arc;

/// What the build is for; `use` is a word of the language, so this object is written out.
#[derive(Debug, Clone, PartialEq)]
pub struct Purpose {
    /// What the engine is for; `None` when it is not said.
    pub used_for: Option<Use>,
}

impl Purpose {
    /// Reads it from the root of a document.
    pub fn read(node: &Node<'_>) -> Self {
        Self { used_for: node.word("use").and_then(Use::from_word) }
    }

    /// Whether it runs for minutes at a time and is looked at between.
    pub fn is_raced(&self) -> bool {
        matches!(self.used_for, Some(Use::Strip | Use::Circuit))
    }
}

impl Fields for Purpose {
    fn numbers(&self) -> Vec<(&'static str, f64)> {
        Vec::new()
    }

    fn set(&mut self, _: &str, _: f64) -> Option<()> {
        None
    }
}

objects! {
    /// The plan.
    Target of Target {
        band_from: Speed,
        band_to: Speed,
        peak_power_at: Speed,
        shift_at: Speed,
        overspeed_by: Speed,
        idle_at: Speed,
        idle_vacuum: Pressure,
        inspection_miles: f64,
        inspection_hours: f64,
        inspection_passes: f64,
        budget: Money,
        boost: Arc<[BoostRow]>,
        piston_clearance_school: ClearanceSchool,
    }

    /// What the class allows.
    Rules of Rules {
        maximum_lift: Length,
        lifter: LifterKind,
        stock_ratio: f64,
    }

    /// The air the engine breathes.
    Ambient of Ambient {
        pressure: Pressure,
        temperature: Temperature,
        humidity: f64,
    }

    /// What candidates share.
    Engine of Engine {
        layout: Layout,
        cylinders: f64,
        firing_order: Arc<[f64]>,
        combustion: Combustion,
        fuel: FuelKind,
        octane_ron: Octane,
        air_fuel_ratio: f64,
        bore: Length,
        stroke: Length,
        rod_length: Length,
        rod_to_cam: Length,
        rod_to_block: Length,
        pin_offset: Length,
        deck_clearance: Length,
        gasket_thickness: Length,
        gasket_bore: Length,
        chamber_volume: Volume,
        piston_volume: Volume,
        chamber_fill: Volume,
        cylinder_fill: Volume,
        piston_down: Length,
        piston_assembly_mass: Mass,
        rod_mass: Mass,
        rod_material: RodMaterial,
        block_material: Casting,
        head_material: Casting,
        cam_drive: CamDrive,
        drive_stretch: Angle,
        timing_steps: Arc<[Angle]>,
        chain_rows: ChainRows,
        pump_arm_width: Length,
        drive_fits: Snout,
        distributor_gear: DistributorGear,
        lifter_bore: Length,
        head_stud: Length,
        spark_retard: Angle,
        cranking_speed: Speed,
        fuelling: Fuelling,
        smoke_air_fuel: f64,
        injection_start: Angle,
        rail_pressure: Pressure,
        injection: Rows<Speed, Angle>,
        pressure_ceiling: Pressure,
        accessories: Accessories,
        main_bearings: f64,
        main_bearing_diameter: Length,
        main_bearing_length: Length,
        rod_bearing_diameter: Length,
        rod_bearing_length: Length,
    }

    /// What the runners breathe from.
    InductionPart of Induction {
        kind: Induction,
        throttle_flow: Flow,
        throttle_depression: Pressure,
        plenum_volume: Volume,
        mixture: MixtureKind,
        manifold: IntakeManifold,
        manifold_loss: f64,
        flow_without_manifold: Flow,
        flow_with_manifold: Flow,
        inlet_depression: Pressure,
        charger: ChargerKind,
        compressor_efficiency: f64,
        turbine_efficiency: f64,
        wastegate: f64,
        cooler_effectiveness: f64,
    }

    /// One side of the head; `each` and `each_length` are runners or primaries.
    Port of Port {
        valves: f64,
        valve_diameter: Length,
        stem_diameter: Length,
        guide_material: Guide,
        valve_angle: Angle,
        valve_cant: Angle,
        valve_offset_x: Length,
        valve_offset_y: Length,
        second_offset_x: Length,
        second_offset_y: Length,
        face_recess: Length,
        margin_thickness: Length,
        seal_height: Length,
        piston_drop: Length,
        drops: Rows<Angle, Length>,
        valve_height: Length,
        valve_height_at: FaceSpot,
        flow_depression: Pressure,
        flow: Rows<Length, Flow>,
        flow_reverse: Rows<Length, Flow>,
        spring_pocket: Length,
        guide_length: Length,
        tip_to_guide: Length,
        pushrod_hole: Length,
        pushrod_hole_below: Length,
        cover_room: Length,
    }

    /// From plenum to head; the intake's alone.
    Runner of Port {
        runner_length: Length,
        runner_lengths: Arc<[Length]>,
        runner_diameter: Length,
        port_length: Length,
        port_volume: Volume,
        smallest_section: Area,
        acoustic_end: Length,
    }

    /// From head to collector; the exhaust's alone.
    Primary of Port {
        manifold: ExhaustManifold,
        primary_length: Length,
        primary_lengths: Arc<[Length]>,
        primary_diameter: Length,
        bend_loss: f64,
        back_pressure: Pressure,
    }

    /// Where primaries meet.
    Collector of Collector {
        length: Length,
        diameter: Length,
        merge_angle: Angle,
        cylinders: Arc<[Vec<f64>]>,
    }

    /// A valve's pocket in the crown.
    PocketPart of Pocket {
        depth: Length,
        diameter: Length,
        offset_x: Length,
        offset_y: Length,
        floor_angle: Angle,
    }

    /// The camshaft.
    Cam of Cam {
        lobe_separation: Angle,
        intake_centreline: Angle,
        phaser_advance: Angle,
        phaser_retard: Angle,
        base_circle_diameter: Length,
        ground_for: GroundFor,
        wheel_radius: Length,
        snout: Snout,
        core_material: Core,
        gear: CamGear,
        bearing_diameter: Length,
        journal_diameter: Length,
        eccentric_width: Length,
        base_circle_before: Length,
        base_runout: Length,
        case_depth: Length,
    }

    /// The four events at .050.
    EventsPart of Events {
        intake_opens_btdc: Angle,
        intake_closes_abdc: Angle,
        exhaust_opens_bbdc: Angle,
        exhaust_closes_atdc: Angle,
    }

    /// One lobe, from its card or measured.
    LobePart of Lobe {
        lobe_lift: Length,
        checks: Rows<Length, Angle>,
        opening: FlankChecks,
        closing: FlankChecks,
        profile: Profile,
        lash_ramp: Length,
    }

    /// Clay under one valve, squeezed by this cam.
    ClayPart of Clay {
        floor: Length,
        wall: Length,
    }

    /// What rides on the lobe.
    Lifter of Lifter {
        kind: LifterKind,
        variant: LifterVariant,
        mass: Mass,
        face_diameter: Length,
        face_margin: Length,
        roller_diameter: Length,
        anti_rotation: AntiRotation,
        travel: Length,
        preload: Length,
        preload_school: PreloadSchool,
        lash: Length,
        give: Length,
        roller_width: Length,
        most_lift: Length,
        rated_speed: Speed,
        rated_load: Force,
        bleed_seconds: f64,
        plunger_diameter: Length,
        oil_height: Length,
        oil_pressure: Pressure,
        air_fraction: f64,
        body_diameter: Length,
        seat_height: Length,
    }

    /// Between lifter and rocker.
    PushrodPart of Pushrod {
        length: Length,
        outside_diameter: Length,
        wall: Length,
        material: LightMetal,
        mass: Mass,
        checked_length: Length,
        end_diameter: Length,
    }

    /// Work that moves the preload.
    PreloadWork of PreloadWork {
        head_milled: Length,
        deck_milled: Length,
        gasket_thicker: Length,
        stem_higher: Length,
        lash_cap: Length,
        base_circle_smaller: Length,
        stand_shim: Length,
        pushrod_longer: Length,
    }

    /// Measured pushrods and places.
    Matching of Matching {
        pushrods: Arc<[Length]>,
        places: Arc<[Length]>,
        preload: Length,
        shim_step: Length,
    }

    /// Installed heights of every valve.
    HeightsPart of Heights {
        measured: Arc<[Length]>,
        kit: Arc<[Length]>,
        locks: Arc<[Length]>,
        wanted: Length,
        within: Length,
        seats_cut: Length,
        retainers_higher: Length,
    }

    /// Multiplies the lobe's lift.
    RockerPart of Rocker {
        mount: Mount,
        tip: Tip,
        material: LightMetal,
        ratio: f64,
        rated_lift: Length,
        tip_side_mass: Mass,
        mass: Mass,
        pivot_to_tip: Length,
        pivot_to_cup: Length,
        tip_radius: Length,
        pivot_height: Length,
        stem_offset: Length,
        cup_drop: Length,
        pushrod_angle: Angle,
        geometry: RockerGeometry,
        stud_diameter: Length,
        slot_length: Length,
        slot_depth: Length,
        body_depth: Length,
        top_height: Length,
        adjuster_height: Length,
        cup_diameter: Length,
    }

    /// What opens two valves of a port.
    Bridge of Bridge {
        mass: Mass,
    }

    /// The valve itself.
    ValvePart of Valve {
        mass: Mass,
        material: ValveMaterial,
        length: Length,
        lash_cap_mass: Mass,
    }

    /// Lift at the valve by dial.
    LiftReadings of Readings {
        light_spring_lift: Length,
        light_spring_load: Force,
        running_lift: Length,
        running_load: Force,
    }

    /// Retainer and locks.
    RetainerPart of Retainer {
        mass: Mass,
        locks_mass: Mass,
        depth: Length,
        diameter: Length,
        below_tip: Length,
        spring_diameter: Length,
    }

    /// The spring package as fitted.
    SpringPart of Spring {
        form: SpringForm,
        installed_height: Length,
        coil_bind_height: Length,
        mass: Mass,
        outside_diameter: Length,
        top_diameter: Length,
        friction: Force,
        points: Rows<Length, Force>,
        coils: Arc<[CoilPart]>,
    }

    /// One coil known by its wire.
    CoilPart of Spring {
        wire_diameter: Length,
        mean_diameter: Length,
        active_coils: f64,
        total_coils: f64,
        free_length: Length,
        seat_offset: Length,
        material: Wire,
    }

    /// A pull on the dyno.
    PullPart of Pull {
        level: Arc<str>,
        air: PullAir,
        pressure: Pressure,
        temperature: Temperature,
        humidity: f64,
        dyno: DynoKind,
        loss: f64,
        from: Speed,
        to: Speed,
        points: Rows<Speed, Torque>,
    }

    /// What was learned from one.
    CalibrationPart of Calibration {
        port_flow: f64,
        friction: f64,
        burning: f64,
        intake_length: Length,
        remaining: f64,
        from: Speed,
        to: Speed,
        pulled: Arc<str>,
        by: CalibratedBy,
    }

    /// What measured motion says of a train.
    TrainFitPart of TrainFit {
        train_damping: f64,
        seat_damping: f64,
        seat_stiffness: SpringRate,
        spring_damping: f64,
        cam_stiffness: f64,
        pivot_stiffness: f64,
        body_stiffness: f64,
        inertia: f64,
        air: f64,
        leak: f64,
        moving_coils: f64,
        spread: Arc<[f64]>,
        mount: Mount,
        lifter: LifterKind,
        form: SpringForm,
    }

    /// What a gap loses on the way to speed.
    GrowthPart of Growth {
        rod_stretch: Length,
        crank_bending: Length,
        bearing_and_pin: Length,
        piston_heat: Length,
        piston_rock: Length,
        block_heat: Length,
        gasket_creep: Length,
        cam_lag_per_1000_rpm: Angle,
        valve_stretch: Length,
        valve_sway: Length,
        piston_sway: Length,
        beyond: Length,
    }
}

impl Value for Arc<[CoilPart]> {
    fn read(node: &Node<'_>, key: &str) -> Option<Self> {
        node.has(key).then(|| node.children(key).iter().map(|coil| CoilPart::read(coil, Side::Intake)).collect())
    }
}

impl Engine {
    /// Whether the crown stands above its own flat.
    pub fn is_domed(&self) -> bool {
        self.piston_volume.is_some_and(|volume| volume.si() < 0.0)
    }
}

impl Port {
    /// Drops of the valve to the piston by dial, each with its crank degrees after overlap top dead centre.
    pub fn drops_about_top(&self) -> Vec<(Angle, Length)> {
        let at_top = self.piston_drop.map(|drop| (Angle::deg(0.0), drop));
        at_top.into_iter().chain(self.drops.iter().flat_map(|rows| rows.iter().copied())).collect()
    }
}

impl Target {
    /// Whether the plan states an interval at which springs are looked at.
    pub fn has_interval(&self) -> bool {
        [self.inspection_miles, self.inspection_hours, self.inspection_passes].iter().any(Option::is_some)
    }
}
