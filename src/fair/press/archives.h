#pragma once
// The fair's own archives besides the crate. Written without any of Skivet's code; the layouts are described in assets/sheets.
#include <map>

#include "fair/press/pack.h"

namespace fair {

/// A bundle of textures: names of 24 bytes, offsets and sizes.
QByteArray make_roll(const std::vector<PackedFile>& files);
/// Any file, deflated as a whole behind a header.
QByteArray make_bale(const QByteArray& content);
/// An index and its numbered data files, by name.
std::map<QString, QByteArray> make_index(const QString& stem, const std::vector<PackedFile>& files);
/// Directory and data encrypted with AES-128 in counter mode.
QByteArray make_strongbox(const std::vector<PackedFile>& files, const QByteArray& key);
/// Names only as FNV-1a of the path in lower case.
QByteArray make_hamper(const std::vector<PackedFile>& files);

}  // namespace fair
