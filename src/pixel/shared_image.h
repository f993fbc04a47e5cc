#pragma once
#include <memory>

#include "pixel/image.h"

namespace skivet {

/// A picture that several hold and nobody changes: to copy it costs nothing.
class SharedImage {
public:
    SharedImage() : image_(std::make_shared<const Image>()) {}
    explicit SharedImage(Image image) : image_(std::make_shared<const Image>(std::move(image))) {}

    [[nodiscard]] const Image& operator*() const { return *image_; }
    [[nodiscard]] const Image* operator->() const { return image_.get(); }
    operator const Image&() const { return *image_; }
    [[nodiscard]] const Texel& at(std::uint32_t x, std::uint32_t y) const { return image_->at(x, y); }
    /// The very same, not only equal.
    [[nodiscard]] bool is_shared_with(const SharedImage& other) const { return image_ == other.image_; }
    friend bool operator==(const SharedImage& a, const SharedImage& b) { return a.is_shared_with(b) || *a == *b; }

private:
    std::shared_ptr<const Image> image_;
};

}  // namespace skivet
