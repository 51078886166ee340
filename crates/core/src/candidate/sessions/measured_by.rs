//! Which session at the bench measures a field.

use crate::words::SessionKind;

/// The session that the field at `path` comes from; `None` where none measures it.
pub fn measured_by(path: &str) -> Option<SessionKind> {
    let (parent, key) = path.rsplit_once('.').unwrap_or(("", path));
    let is_in = |object: &str| parent.split('.').any(|part| part == object);
    Some(match key {
        "deck_clearance" => SessionKind::Decks,
        "chamber_volume" | "piston_volume" | "port_volume" => SessionKind::Volumes,
        "flow" | "flow_depression" => SessionKind::Flow,
        "face_recess" | "piston_drop" => SessionKind::ValveDrop,
        "depth" | "diameter" if is_in("pocket") => SessionKind::ValveDrop,
        "intake_centreline" | "lobe_separation" => SessionKind::DegreeIn,
        "lobe_lift" | "checks" | "profile" => SessionKind::LobeMap,
        "ratio" | "light_spring_lift" | "running_lift" => SessionKind::LiftCheck,
        "points" | "coil_bind_height" if is_in("spring") => SessionKind::Springs,
        "installed_height" => SessionKind::InstalledHeights,
        "tip_side_mass" => SessionKind::RockerMass,
        "mass" if is_in("rocker") => SessionKind::RockerMass,
        "preload" | "lash" => SessionKind::Adjustment,
        "checked_length" => SessionKind::Pushrods,
        "length" if is_in("pushrod") => SessionKind::Pushrods,
        _ => return None,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_field_knows_the_session_that_measures_it() {
        let by = |path: &str| measured_by(path);
        assert_eq!(by("engine.deck_clearance"), Some(SessionKind::Decks));
        assert_eq!(by("engine.intake.pocket.depth"), Some(SessionKind::ValveDrop));
        assert_eq!(by("candidates[0].train.rocker.intake.mass"), Some(SessionKind::RockerMass));
        assert_eq!(by("candidates[0].train.valve.mass"), None);
        assert_eq!(by("candidates[0].train.pushrod.length"), Some(SessionKind::Pushrods));
        assert_eq!(by("name"), None);
    }
}
