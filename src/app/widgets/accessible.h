#pragma once
// What assistive programs see of widgets that draw themselves: a row of parts is a list whose parts can be named, found and chosen, a
// picture says in words what it shows.
#include <QRect>
#include <QString>

class QWidget;

namespace skivet::app {

/// A widget of parts that are drawn and are no widgets: stations, levels, small pictures.
class WithParts {
public:
    virtual ~WithParts() = default;
    [[nodiscard]] virtual int part_count() const = 0;
    [[nodiscard]] virtual QString part_name(int part) const = 0;
    /// In the widget; empty where it has no room.
    [[nodiscard]] virtual QRect part_place(int part) const = 0;
    /// The one at a place in the widget; -1: none.
    [[nodiscard]] virtual int part_at(QPoint place) const;
    /// -1: none.
    [[nodiscard]] virtual int current_part() const = 0;
    virtual void choose_part(int part) = 0;
    /// Whether the parts are pages of the window, of which one is shown.
    [[nodiscard]] virtual bool parts_are_pages() const { return false; }
};

/// A widget that is a picture of something.
class WithDescription {
public:
    virtual ~WithDescription() = default;
    /// What it shows just now.
    [[nodiscard]] virtual QString described() const = 0;
};

/// From now on widgets of these classes are seen so.
void make_accessible();
/// Says that another part is the current one. `widget` is a WithParts.
void tell_part_chosen(QWidget* widget);

}  // namespace skivet::app
