//! Torque that follows a drag: what the kept response of a candidate's region says of where it stands now.

use crate::candidate::{Gap, Part, Resolved, Stages};
use crate::choose::Frame;
use crate::report::FollowReport;
use crate::response::Decision;

/// The predicted curve of a candidate, where a response of its region is kept.
///
/// # Errors
/// What its cam lacks, or that nothing was computed around it yet.
pub(super) fn following(resolved: &Resolved, stages: &Stages) -> Part<FollowReport> {
    let none = || Gap::because("no cams around this one were computed yet");
    if stages.responses.is_empty() {
        return Err(none());
    }
    let frame = Frame::of(resolved)?;
    let response = stages.responses.kept(frame.key(&Decision::CAM)).ok_or_else(none)?;
    let (columns, figures) = (response.columns(frame.now()), response.figures(frame.now()));
    let torque = &columns[..response.speeds.len()];
    let tenth = |value: f64| (value * 10.0).round() * 0.1;
    Ok(FollowReport {
        speed_rpm: response.speeds.clone(),
        torque_nm: torque.iter().map(|nm| tenth(*nm)).collect(),
        power_kw: response
            .speeds
            .iter()
            .zip(torque)
            .map(|(rpm, nm)| tenth(rpm * nm * std::f64::consts::PI / 30.0e3))
            .collect(),
        average_torque_nm: tenth(figures.average_torque),
        peak_power_kw: tenth(figures.peak_power),
        peak_power_rpm: figures.peak_power_rpm.round(),
        off_share: response.left_out.torque,
        is_inside: response.holds(frame.now()),
    })
}
