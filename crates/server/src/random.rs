//! Random bytes of the system, as text.

use crate::problem::Problem;
use actix_web::http::StatusCode;

/// `N` bytes in hexadecimal.
///
/// # Errors
/// The system has no random numbers.
pub fn hex<const N: usize>() -> Result<String, getrandom::Error> {
    let mut bytes = [0_u8; N];
    getrandom::fill(&mut bytes)?;
    Ok(bytes.iter().map(|byte| format!("{byte:02x}")).collect())
}

impl From<getrandom::Error> for Problem {
    fn from(error: getrandom::Error) -> Self {
        Self::new(StatusCode::INTERNAL_SERVER_ERROR, "no-randomness", error.to_string())
    }
}
