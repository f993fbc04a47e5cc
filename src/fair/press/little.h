#pragma once
#include <QByteArray>
#include <QtEndian>

namespace fair {

/// Appends a number, lowest byte first.
template <class T>
void put(QByteArray& out, T value) {
    const auto little = qToLittleEndian(value);
    out.append(reinterpret_cast<const char*>(&little), sizeof little);
}

}  // namespace fair
