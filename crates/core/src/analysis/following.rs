//! Torque that follows a drag: what the kept response of a candidate's region says of where it stands now.

use super::choose_words::scale;
use crate::candidate::{Gap, Part, Resolved, Stages, key};
use crate::choose::Frame;
use crate::report::{FollowReport, StandsAt};
use crate::response::{Choice, Decision, Depth, Response, power};

/// The predicted curve of a candidate, where a response of its region is kept.
///
/// # Errors
/// What its cam lacks, or that nothing was computed around it yet.
pub(super) fn following(resolved: &Resolved, stages: &Stages) -> Part<FollowReport> {
    let none = || Gap::because("no cams around this one were computed yet");
    if stages.wide.is_empty() {
        return Err(none());
    }
    let frame = Frame::of(resolved)?;
    let key = frame.key(&Decision::CAM);
    // Until some cams near this one were drafted, those that were screened far and wide tell; where something beside the cam
    // was moved, the cams that were computed along that.
    let cams = stages.responses.kept(key).or_else(|| stages.wide.kept(key));
    // Every drag asks: a key takes the whole candidate.
    let open = if stages.along.is_empty() { &[][..] } else { &Decision::HARDWARE };
    let beside = || open.iter().find_map(|decision| stages.along.kept(frame.key(&[*decision])));
    let response = cams.or_else(beside).ok_or_else(none)?;
    Ok(follow_report(&response, frame.now()))
}

/// What a response says of a choice, as fine as it can be read.
pub(super) fn follow_report(response: &Response, choice: &Choice) -> FollowReport {
    let (columns, figures) = (response.columns(choice), response.figures(choice));
    let torque = &columns[..response.speeds.len()];
    let tenth = |value: f64| (value * 10.0).round() / 10.0;
    let stands_at = |decision: Decision| Some(StandsAt { decision, at: choice.get(decision)? * scale(decision) });
    let powers = response.speeds.iter().zip(torque).map(|(rpm, nm)| power(*rpm, *nm) * 1e-3);
    FollowReport {
        made_of: format!("{:08x}", key(&(response.depth, &response.axes)) as u32),
        speed_rpm: response.speeds.clone(),
        torque_nm: torque.iter().map(|nm| tenth(*nm)).collect(),
        power_kw: powers.map(tenth).collect(),
        average_torque_nm: tenth(figures.average_torque),
        peak_power_kw: tenth(figures.peak_power),
        peak_power_rpm: figures.peak_power_rpm.round(),
        off_share: response.left_out.torque,
        is_inside: response.holds(choice),
        is_drafted: response.depth != Depth::Screened,
        stands_at: Decision::HARDWARE.into_iter().chain(Decision::CARD).filter_map(stands_at).collect(),
    }
}
