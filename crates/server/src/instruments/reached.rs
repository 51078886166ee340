//! How an instrument is reached: over the network or a serial port.

use std::fmt;
use std::io::{self, Read};
use std::net::{IpAddr, SocketAddr, TcpStream};
use std::time::Duration;

/// Why an instrument cannot be set up or reached, in words.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Trouble(pub String);

impl fmt::Display for Trouble {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.0)
    }
}

impl std::error::Error for Trouble {}

/// Where an instrument is.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Reached {
    /// Lines over a connection.
    Tcp(SocketAddr),
    /// Lines over a port at so many baud.
    Serial {
        /// Its path, or its name.
        port: String,
        /// Bits a second.
        baud: u32,
    },
}

/// A connection is made within this, and a read gives up after it to look whether anybody still listens.
const CONNECTS: Duration = Duration::from_secs(2);
const READS: Duration = Duration::from_millis(200);
const USUAL_BAUD: u32 = 9600;

impl Reached {
    /// Reads `tcp ADDRESS:PORT` or `serial PORT [BAUD]`.
    ///
    /// # Errors
    /// What is wrong with it.
    pub fn of(text: &str) -> Result<Self, Trouble> {
        let words: Vec<&str> = text.split_whitespace().collect();
        match words[..] {
            ["tcp", address] => tcp(address),
            ["serial", port] => Ok(Self::Serial { port: port.to_owned(), baud: USUAL_BAUD }),
            ["serial", port, baud] => match baud.parse() {
                Ok(baud @ 300..=3_000_000) => Ok(Self::Serial { port: port.to_owned(), baud }),
                _ => Err(Trouble(format!("{baud} is no speed of a serial port: 300 to 3000000"))),
            },
            _ => Err(Trouble("write “tcp 127.0.0.1:4001” or “serial /dev/ttyUSB0 9600”".to_owned())),
        }
    }

    /// Opens it.
    ///
    /// # Errors
    /// Why it does not open.
    pub fn open(&self) -> Result<Box<dyn Read + Send>, Trouble> {
        let told = |error: &dyn fmt::Display| Trouble(format!("{self} does not answer: {error}"));
        match self {
            Self::Tcp(address) => {
                let stream = TcpStream::connect_timeout(address, CONNECTS).map_err(|error| told(&error))?;
                stream.set_read_timeout(Some(READS)).map_err(|error| told(&error))?;
                Ok(Box::new(stream))
            }
            Self::Serial { port, baud } => {
                let opened = serialport::new(port, *baud).timeout(READS).open();
                Ok(Box::new(SerialLines(opened.map_err(|error| told(&error))?)))
            }
        }
    }
}

/// Only what is on the shop's own network: a build that was imported must not make this machine call elsewhere.
fn tcp(address: &str) -> Result<Reached, Trouble> {
    let address: SocketAddr =
        address.parse().map_err(|_| Trouble(format!("{address} is no address with a port, such as 127.0.0.1:4001")))?;
    let is_own = match address.ip() {
        IpAddr::V4(ip) => ip.is_loopback() || ip.is_private() || ip.is_link_local(),
        IpAddr::V6(ip) => ip.is_loopback() || ip.is_unique_local() || ip.is_unicast_link_local(),
    };
    if is_own { Ok(Reached::Tcp(address)) } else { Err(Trouble(format!("{address} is not on the shop's own network"))) }
}

impl fmt::Display for Reached {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Tcp(address) => write!(f, "tcp {address}"),
            Self::Serial { port, baud } => write!(f, "serial {port} {baud}"),
        }
    }
}

struct SerialLines(Box<dyn serialport::SerialPort>);

impl Read for SerialLines {
    fn read(&mut self, into: &mut [u8]) -> io::Result<usize> {
        self.0.read(into)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_instrument_is_on_the_shops_own_network_or_on_a_port() {
        assert!(matches!(Reached::of("tcp 192.168.1.9:4001"), Ok(Reached::Tcp(_))));
        assert_eq!(Reached::of("serial COM3"), Ok(Reached::Serial { port: "COM3".to_owned(), baud: 9600 }));
        for refused in ["tcp 8.8.8.8:80", "tcp dial.example:1", "serial /dev/ttyS0 12", "usb", "", "tcp 10.0.0.1"] {
            assert!(Reached::of(refused).is_err(), "{refused}");
        }
    }
}
