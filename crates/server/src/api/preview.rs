//! What a drag needs of an answer: only what its event moves, as fine as it can be drawn. The rest stands on the screen.

use upper_lobe_core::analysis::{Analysis, Block, Edit, Side, StripReport};

/// Curves of a preview are drawn, not computed with: a hundredth of a millimetre is a seventh of a pixel.
const PER_MM: f64 = 100.0;

/// Beyond this a gap is below the strip's frame and no limit: whole millimetres do.
const FAR_MM: f64 = 25.0;

/// Leaves out of `analysis` what `edits` do not move: the crank's degrees, the piston, the other valve's curves and
/// limits, what was assumed and warned of, the constant text of limits; a reader keeps what it has of them. What is left is rounded for drawing.
pub fn slim(analysis: &mut Analysis, edits: &[Edit]) {
    analysis.assumed.clear();
    analysis.warnings.clear();
    let still = still(edits);
    for candidate in &mut analysis.candidates {
        // What is said of the other valve stands on the screen.
        candidate.limits.retain(|limit| limit.side.is_none() || limit.side != still);
        for limit in &mut candidate.limits {
            for text in [&mut limit.formula, &mut limit.school, &mut limit.source] {
                text.clear();
            }
            limit.inputs.clear();
        }
        candidate.measure_next.clear();
        if let Block::Done(strip) = &mut candidate.strip {
            slim_strip(strip, still);
        }
    }
}

/// The valve that no edit moves; `None` where both may move.
fn still(edits: &[Edit]) -> Option<Side> {
    let sides: Vec<Side> = edits
        .iter()
        .map(|edit| match edit {
            Edit::MoveEvent { event, .. } | Edit::TypeEvent { event, .. } => Some(event.side()),
            _ => None,
        })
        .collect::<Option<_>>()?;
    match sides.as_slice() {
        [first, rest @ ..] if rest.iter().all(|side| side == first) => {
            Some(if *first == Side::Intake { Side::Exhaust } else { Side::Intake })
        }
        _ => None,
    }
}

fn slim_strip(strip: &mut StripReport, still: Option<Side>) {
    strip.crank_deg.clear();
    strip.piston_mm.clear();
    if still == Some(Side::Intake) {
        strip.intake_lift_mm.clear();
        strip.intake_velocity_mm_per_deg.clear();
        strip.intake_running_mm = None;
        strip.intake_clearance_mm = None;
    }
    if still == Some(Side::Exhaust) {
        strip.exhaust_lift_mm.clear();
        strip.exhaust_velocity_mm_per_deg.clear();
        strip.exhaust_running_mm = None;
        strip.exhaust_clearance_mm = None;
    }
    let optional = [
        &mut strip.intake_running_mm,
        &mut strip.exhaust_running_mm,
        &mut strip.intake_clearance_mm,
        &mut strip.exhaust_clearance_mm,
    ];
    let curves = [
        &mut strip.intake_lift_mm,
        &mut strip.exhaust_lift_mm,
        &mut strip.intake_velocity_mm_per_deg,
        &mut strip.exhaust_velocity_mm_per_deg,
    ];
    for value in curves.into_iter().chain(optional.into_iter().flatten()).flatten() {
        *value = if value.abs() > FAR_MM { value.round() } else { (*value * PER_MM).round() / PER_MM };
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use upper_lobe_core::analysis::Event;

    fn moved(event: Event) -> Edit {
        Edit::MoveEvent { candidate: "a".to_owned(), event, crank_deg: 0.0 }
    }

    #[test]
    fn an_event_of_one_valve_leaves_the_other_still() {
        assert_eq!(still(&[moved(Event::IntakeCloses)]), Some(Side::Exhaust));
        assert_eq!(still(&[moved(Event::ExhaustOpens)]), Some(Side::Intake));
        assert_eq!(still(&[moved(Event::IntakeOpens), moved(Event::ExhaustOpens)]), None);
        assert_eq!(still(&[Edit::Set { field: "engine.bore".to_owned(), text: "4 in".to_owned() }]), None);
        assert_eq!(still(&[]), None);
    }
}
