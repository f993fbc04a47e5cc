#pragma once
#include <cstdint>
#include <QLineF>

namespace skivet::app {

/// A line over a picture; places from 0 to 1 of it.
struct OverlayLine {
    QLineF line;
    int group = 0;  ///< lines of one group can be made to stand out
    enum class Look : std::uint8_t { faint, plain, first, second } look = Look::plain;
};

}  // namespace skivet::app
