#pragma once
// An optional value that is hardly ever there: eight bytes where std::optional takes the value's own size.
#include <memory>

namespace skivet {

template <class T>
class Rarely {
public:
    Rarely() = default;
    Rarely(T value) : value_(std::make_unique<T>(std::move(value))) {}
    Rarely(const Rarely& other) : value_(other.value_ ? std::make_unique<T>(*other.value_) : nullptr) {}
    Rarely(Rarely&&) noexcept = default;
    Rarely& operator=(const Rarely& other) {
        value_ = other.value_ ? std::make_unique<T>(*other.value_) : nullptr;
        return *this;
    }
    Rarely& operator=(Rarely&&) noexcept = default;
    [[nodiscard]] bool has_value() const { return value_ != nullptr; }
    explicit operator bool() const { return has_value(); }
    const T& operator*() const { return *value_; }
    const T* operator->() const { return value_.get(); }

private:
    std::unique_ptr<T> value_;
};

}  // namespace skivet
