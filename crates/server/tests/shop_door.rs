//! The real server with its door to the shop's network open: TLS alone, the certificate the screen tells, devices that stay let in
//! over a crash.

use crate::served::{get, serve_with};
use rustls::pki_types::pem::PemObject;
use rustls::pki_types::{CertificateDer, ServerName};
use rustls::{ClientConfig, ClientConnection, RootCertStore, StreamOwned};
use serde_json::{Value, json};
use sha2::{Digest, Sha256};
use std::io::{Read, Write};
use std::net::TcpStream;
use std::path::Path;
use std::sync::Arc;

/// A client that trusts the certificate beside the database, and nothing else.
fn client(database: &Path) -> Arc<ClientConfig> {
    let mut roots = RootCertStore::empty();
    let file = format!("{}.shop-certificate.pem", database.display());
    roots.add(CertificateDer::from_pem_file(file).expect("a certificate")).expect("it can be trusted");
    let provider = Arc::new(rustls::crypto::ring::default_provider());
    let config = ClientConfig::builder_with_provider(provider).with_safe_default_protocol_versions().expect("versions");
    Arc::new(config.with_root_certificates(roots).with_no_client_auth())
}

/// Head and body of an answer.
fn asked(client: &Arc<ClientConfig>, address: &str, head: &str, body: &str) -> (String, String) {
    let name = ServerName::try_from("127.0.0.1").expect("a name");
    let socket = TcpStream::connect(address).expect("the door is open");
    let connection = ClientConnection::new(Arc::clone(client), name).expect("a client");
    let mut stream = StreamOwned::new(connection, socket);
    let length = body.len();
    let common =
        format!("Host: {address}\r\nOrigin: https://{address}\r\nConnection: close\r\nContent-Length: {length}");
    write!(stream, "{head}\r\n{common}\r\nContent-Type: application/json\r\n\r\n{body}").expect("it is sent");
    let mut answer = String::new();
    // A server may close without a goodbye; what came is what counts.
    let _ = stream.read_to_string(&mut answer);
    let (head, body) = answer.split_once("\r\n\r\n").expect("an answer");
    (head.to_owned(), body.to_owned())
}

#[test]
fn devices_come_in_by_tls_and_stay_over_a_crash() {
    let folder = tempfile::tempdir().expect("a folder");
    let database = folder.path().join("test.db");
    let lan = ["--lan", "127.0.0.1", "--lan-port", "0"];
    let mut served = serve_with(&database, &lan);
    let state = get(&format!("{}/api/pairing", served.url));
    let address = state["addresses"][0].as_str().expect("open").trim_start_matches("https://").to_owned();
    let client = client(&database);
    // What the screen says of the certificate is what a browser will show.
    let file = format!("{}.shop-certificate.pem", database.display());
    let certificate = CertificateDer::from_pem_file(file).expect("a certificate");
    let digest: String = Sha256::digest(&certificate).iter().map(|byte| format!("{byte:02X}")).collect();
    assert_eq!(state["fingerprint"].as_str().expect("told").replace(':', ""), digest);
    // Without TLS there is nothing.
    let mut plain = TcpStream::connect(&address).expect("the door is open");
    write!(plain, "GET /api/me HTTP/1.1\r\nHost: {address}\r\n\r\n").expect("it is sent");
    let mut bytes = Vec::new();
    let _ = plain.read_to_end(&mut bytes);
    assert!(!String::from_utf8_lossy(&bytes).contains("HTTP/1.1"), "no answer in the clear");
    let shown = ureq::post(&format!("{}/api/pairing", served.url)).set("content-type", "application/json");
    let shown =
        shown.send_string(&json!({ "role": "look" }).to_string()).expect("a code").into_string().expect("a body");
    let shown: Value = serde_json::from_str(&shown).expect("JSON");
    let body = json!({ "code": shown["code"], "name": "Tablet" }).to_string();
    let (head, _) = asked(&client, &address, "POST /api/pair HTTP/1.1", &body);
    assert!(head.starts_with("HTTP/1.1 200"), "{head}");
    let set = head.lines().find_map(|line| line.strip_prefix("set-cookie: ")).expect("a cookie");
    let cookie = set.split(';').next().expect("its value");
    served.process.kill().expect("killed");
    served.process.wait().expect("gone");
    // The same certificate and the same devices, whatever port it comes back on.
    let mut served = serve_with(&database, &lan);
    let again = get(&format!("{}/api/pairing", served.url));
    assert_eq!(again["fingerprint"], state["fingerprint"]);
    assert!(again["code_left_s"].is_null());
    let address = again["addresses"][0].as_str().expect("open").trim_start_matches("https://");
    let (head, body) = asked(&client, address, &format!("GET /api/me HTTP/1.1\r\nCookie: {cookie}"), "");
    assert!(head.starts_with("HTTP/1.1 200") && body.contains("\"name\":\"Tablet\""), "{head} {body}");
    served.process.kill().expect("killed");
    served.process.wait().expect("gone");
}
