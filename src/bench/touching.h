#pragma once
// Touch-ups on what was read from an edited file.
#include <filesystem>

#include "bench/fitting.h"
#include "touch/touch_up.h"

namespace skivet {

/// The pictures that touch-ups name, read from files; names that are no whole paths lie in `folder`.
[[nodiscard]] TouchPictures touch_pictures_in(std::filesystem::path folder, const ReadLimits& limits);
/// Makes the touch-ups in every form of the picture that is there. The levels of an edit that is a texture file are then its own no longer.
/// Error `unsupported` for true values (OpenEXR, floats): touch-ups are made for encoded ones.
[[nodiscard]] Status touch(EditedFile& edited, std::span<const TouchUp> touches, const TouchPictures& pictures,
                           const CancelToken& cancel = {});

/// Lists of touch-ups under names of one's own, for every project: a text file each, a touch-up a line; lines that begin with # say
/// nothing.
class TouchLists {
public:
    explicit TouchLists(std::filesystem::path folder) : folder_(std::move(folder)) {}
    /// $XDG_DATA_HOME/skivet/touch-ups, or ~/.local/share/skivet/touch-ups.
    [[nodiscard]] static std::filesystem::path standard_folder();

    [[nodiscard]] std::vector<std::string> names() const;  ///< sorted
    /// A list by its name, or any file of such lines by its path. Errors say the line.
    [[nodiscard]] Result<std::vector<TouchUp>> read(const std::string& name) const;
    /// Error `usage` for a name that is none (empty, or with a slash).
    [[nodiscard]] Status keep(const std::string& name, std::span<const TouchUp> touches) const;

private:
    std::filesystem::path folder_;
};

}  // namespace skivet
