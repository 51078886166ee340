//! The certificate of the door to the shop's network: given, or made here and kept beside the database.

use anyhow::{Context, ensure};
use rcgen::{CertificateParams, DnType, KeyPair};
use rustls::ServerConfig;
use rustls::pki_types::pem::PemObject;
use rustls::pki_types::{CertificateDer, PrivateKeyDer};
use sha2::{Digest, Sha256};
use std::fs;
use std::io::Write;
use std::net::IpAddr;
use std::path::{Path, PathBuf};
use std::sync::Arc;

/// Where a certificate and its key are, as PEM.
#[derive(Debug, Clone)]
pub struct Files {
    /// The chain, this machine's own first.
    pub certificate: PathBuf,
    /// Its key.
    pub key: PathBuf,
}

/// A certificate that is ready to serve with.
pub struct Certificate {
    /// For the server.
    pub config: ServerConfig,
    /// SHA-256 of the certificate, as browsers show it.
    pub fingerprint: String,
}

impl Files {
    /// Those that belong to a database.
    pub fn beside(database: &Path) -> Self {
        let named = |ending: &str| {
            let mut name = database.as_os_str().to_owned();
            name.push(ending);
            PathBuf::from(name)
        };
        Self { certificate: named(".shop-certificate.pem"), key: named(".shop-key.pem") }
    }

    /// Makes them where they are missing or of other addresses.
    ///
    /// # Errors
    /// The folder cannot be written.
    pub fn made_for(self, addresses: &[IpAddr]) -> anyhow::Result<Self> {
        let names: Vec<String> = addresses.iter().map(ToString::to_string).collect();
        let of = names.join(", ");
        // What it is of stands in its first line: PEM allows text before the block.
        let is_of = fs::read_to_string(&self.certificate).is_ok_and(|text| text.lines().next() == Some(of.as_str()));
        if is_of && self.key.exists() {
            return Ok(self);
        }
        let key = KeyPair::generate()?;
        let mut params = CertificateParams::new(names)?;
        params.distinguished_name.push(DnType::CommonName, "Upper Lobe in this shop");
        let certificate = params.self_signed(&key)?;
        let written = |path: &Path| format!("writing {}", path.display());
        write_secret(&self.key, &key.serialize_pem()).with_context(|| written(&self.key))?;
        fs::write(&self.certificate, format!("{of}\n{}", certificate.pem()))
            .with_context(|| written(&self.certificate))?;
        Ok(self)
    }

    /// Reads them.
    ///
    /// # Errors
    /// Files that cannot be read, or do not belong together.
    pub fn read(&self) -> anyhow::Result<Certificate> {
        let read = |path: &Path| format!("reading {}", path.display());
        let chain: Vec<_> = CertificateDer::pem_file_iter(&self.certificate)
            .with_context(|| read(&self.certificate))?
            .collect::<Result<_, _>>()
            .with_context(|| read(&self.certificate))?;
        ensure!(!chain.is_empty(), "{} holds no certificate", self.certificate.display());
        let key = PrivateKeyDer::from_pem_file(&self.key).with_context(|| read(&self.key))?;
        let fingerprint = fingerprint(&chain[0]);
        let config = ServerConfig::builder_with_provider(Arc::new(rustls::crypto::ring::default_provider()))
            .with_safe_default_protocol_versions()?
            .with_no_client_auth()
            .with_single_cert(chain, key)
            .context("certificate and key do not belong together")?;
        Ok(Certificate { config, fingerprint })
    }
}

/// A file that nobody but its owner reads, from the moment it is there.
fn write_secret(path: &Path, text: &str) -> std::io::Result<()> {
    let mut options = fs::OpenOptions::new();
    options.write(true).create(true).truncate(true);
    #[cfg(unix)]
    {
        use std::os::unix::fs::{OpenOptionsExt, PermissionsExt};
        options.mode(0o600);
        // One that was there before keeps its mode unless it is told.
        if path.exists() {
            fs::set_permissions(path, fs::Permissions::from_mode(0o600))?;
        }
    }
    options.open(path)?.write_all(text.as_bytes())
}

fn fingerprint(certificate: &CertificateDer<'_>) -> String {
    let bytes: Vec<String> = Sha256::digest(certificate).iter().map(|byte| format!("{byte:02X}")).collect();
    bytes.join(":")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn one_is_made_once_for_the_same_addresses_and_its_key_is_secret() {
        let folder = tempfile::tempdir().unwrap();
        let own = |addresses: &[&str]| {
            let addresses: Vec<IpAddr> = addresses.iter().map(|own| own.parse().unwrap()).collect();
            Files::beside(&folder.path().join("upper-lobe.db")).made_for(&addresses).unwrap()
        };
        let first = own(&["192.168.1.20"]).read().unwrap().fingerprint;
        assert_eq!(first.len(), 32 * 3 - 1);
        assert_eq!(own(&["192.168.1.20"]).read().unwrap().fingerprint, first);
        let moved = own(&["192.168.1.21"]);
        assert_ne!(moved.read().unwrap().fingerprint, first);
        #[cfg(unix)]
        {
            use std::os::unix::fs::PermissionsExt;
            assert_eq!(fs::metadata(&moved.key).unwrap().permissions().mode() & 0o777, 0o600);
        }
        // A key of another certificate is told at once, not to the first device.
        fs::write(&moved.key, KeyPair::generate().unwrap().serialize_pem()).unwrap();
        assert!(moved.read().is_err());
    }
}
