//! Tables over one cycle of the crank.

/// Degrees between the entries of tables over the cycle.
pub const TABLE_STEP: f64 = 0.5;

/// A table over one cycle at any crank angle, between its entries linear.
#[inline]
pub fn on_cycle(table: &[f64], crank: f64) -> f64 {
    let turned = if crank >= 720.0 { crank - 720.0 * (crank / 720.0).floor() } else { crank };
    let place = turned / TABLE_STEP;
    let left = (place as usize).min(table.len() - 1);
    let right = if left + 1 == table.len() { 0 } else { left + 1 };
    table[left] + (place - left as f64) * (table[right] - table[left])
}

/// The angles of a table over the cycle.
pub fn cycle() -> impl Iterator<Item = f64> {
    (0..(720.0 / TABLE_STEP) as usize).map(|i| i as f64 * TABLE_STEP)
}
