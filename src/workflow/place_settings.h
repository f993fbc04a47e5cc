#pragma once
// What a project says of where deliveries beside the archives go, and of how its game is started. Texts that are empty: as proposed
// (places.h).
#include <cstdint>
#include <filesystem>
#include <string>
#include <vector>

#include "delivery/device.h"

namespace skivet {

/// A card or device that takes files of the game, put in or connected when something is delivered to it.
struct DeviceSettings {
    std::filesystem::path folder;           ///< where it is; empty: there is none
    std::string layout;                     ///< of the files below it, as PlaceSettings::override_layout
    bool loose = false;                     ///< textures as files of their own; otherwise the game's files whole, as they become
    std::uint64_t largest = fat32_largest;  ///< bytes of one file; larger ones are cut
    std::string part;                       ///< what the names of the parts end in, as ".{nn}"
    bool operator==(const DeviceSettings&) const = default;
};

struct PlaceSettings {
    std::string override_folder;  ///< for loose files, relative to the game
    std::string override_layout;  ///< how loose files lie in it, with {path}, {file}, {archive} and {group}
    std::string patch_name;       ///< of patch archives
    std::string list_file;        ///< the game's list that patch archives are added to, relative to the game; "-": none
    DeviceSettings device;
    bool operator==(const PlaceSettings&) const = default;
};

struct PlaySettings {
    std::vector<std::string> command;      ///< program and arguments; may be empty
    std::filesystem::path folder;          ///< it is started in; empty: the game's
    std::vector<std::string> environment;  ///< NAME=value, over the session's
    std::filesystem::path log;             ///< that it writes, relative to the game; empty: what it prints is all
    bool operator==(const PlaySettings&) const = default;
};

}  // namespace skivet
