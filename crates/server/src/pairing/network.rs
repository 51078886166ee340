//! Addresses of the shop's own network.

use std::net::IpAddr;

/// Whether an address is of a network of its own.
pub trait Networked {
    /// Whether it is this machine, or of a network that the world does not reach [RFC 1918, RFC 3927, RFC 4193, RFC 4291].
    fn is_of_the_shop(&self) -> bool;
}

impl Networked for IpAddr {
    fn is_of_the_shop(&self) -> bool {
        match self.to_canonical() {
            Self::V4(own) => own.is_loopback() || own.is_private() || own.is_link_local(),
            Self::V6(own) => own.is_loopback() || own.is_unique_local() || own.is_unicast_link_local(),
        }
    }
}

/// Addresses of this machine in the shop's network, as other devices reach it.
///
/// # Errors
/// The system does not tell its addresses.
pub fn private_addresses() -> std::io::Result<Vec<IpAddr>> {
    let all = if_addrs::get_if_addrs()?.into_iter().map(|own| own.ip());
    Ok(all.filter(|own| own.is_ipv4() && own.is_of_the_shop() && !own.is_loopback()).collect())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_world_is_not_the_shop() {
        let of_shop = |text: &str| text.parse::<IpAddr>().unwrap().is_of_the_shop();
        for own in ["127.0.0.1", "10.1.2.3", "172.16.0.1", "192.168.1.20", "169.254.9.9", "fd00::1", "fe80::1", "::1"] {
            assert!(of_shop(own), "{own}");
        }
        for other in ["172.32.0.1", "8.8.8.8", "192.169.1.1", "2001:db8::1", "::ffff:8.8.8.8", "0.0.0.0"] {
            assert!(!of_shop(other), "{other}");
        }
        assert!(of_shop("::ffff:192.168.1.20"));
        assert!(private_addresses().unwrap().iter().all(|own| own.is_of_the_shop() && !own.is_loopback()));
    }
}
