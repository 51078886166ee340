//! The shape a smooth lobe keeps beyond meeting its card.

/// Which of the shape constraints apply; relaxing one tells whose fault an infeasible card is.
#[derive(Debug, Clone, Copy)]
pub struct Shape {
    /// Velocity within a flat foot's face.
    pub face: bool,
    /// Curvature a flat foot can run on.
    pub curvature: bool,
    /// Deceleration that falls away from full lift.
    pub nose: bool,
}

impl Shape {
    /// Every constraint.
    pub const ALL: Self = Self { face: true, curvature: true, nose: true };
}
