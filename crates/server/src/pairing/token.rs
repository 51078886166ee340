//! What a paired device shows: 256 random bits in a cookie of which only the digest is kept [OWASP Session Management Cheat Sheet:
//! entropy, cookie attributes; from memory].

use crate::random;
use actix_web::cookie::{Cookie, SameSite, time::Duration};
use actix_web::dev::ServiceRequest;
use sha2::{Digest, Sha256};
use upper_lobe_store::PAIRED_DAYS;

/// The prefix has browsers take it only over TLS, for the whole host, and from nobody else's subdomain [RFC 6265bis].
pub const COOKIE: &str = "__Host-upper-lobe-device";

/// A token; never logged, kept as its digest.
pub struct Token(String);

impl Token {
    /// A new one.
    ///
    /// # Errors
    /// The system has no random numbers.
    pub fn new() -> Result<Self, getrandom::Error> {
        random::hex::<32>().map(Self)
    }

    /// What is kept of it.
    pub fn digest(&self) -> [u8; 32] {
        digest(&self.0)
    }

    /// The cookie a device keeps it in: no script reads it, no other site sends it, and it never goes over plain HTTP.
    pub fn cookie(&self) -> Cookie<'static> {
        Cookie::build(COOKIE, self.0.clone())
            .path("/")
            .secure(true)
            .http_only(true)
            .same_site(SameSite::Strict)
            .max_age(Duration::days(PAIRED_DAYS))
            .finish()
    }
}

/// The digest of the token that a request brings.
pub(super) fn digest_of(request: &ServiceRequest) -> Option<[u8; 32]> {
    request.cookie(COOKIE).map(|cookie| digest(cookie.value()))
}

fn digest(token: &str) -> [u8; 32] {
    Sha256::digest(token.as_bytes()).into()
}
