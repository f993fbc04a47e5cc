#include "app/widgets/accessible.h"

#include <QAccessible>
#include <QAccessibleWidget>

namespace skivet::app {
namespace {

/// One part of a WithParts. Lives as long as Qt's cache of interfaces has it, and answers for as long as the widget is there.
class Part : public QAccessibleInterface, public QAccessibleActionInterface {
public:
    Part(QWidget* widget, WithParts* parts, int part) : widget_(widget), parts_(parts), part_(part) {}
    [[nodiscard]] bool isValid() const override { return widget_ && part_ < parts_->part_count(); }
    [[nodiscard]] QObject* object() const override { return nullptr; }
    [[nodiscard]] QAccessibleInterface* parent() const override { return QAccessible::queryAccessibleInterface(widget_); }
    [[nodiscard]] QAccessibleInterface* child(int) const override { return nullptr; }
    [[nodiscard]] QAccessibleInterface* childAt(int, int) const override { return nullptr; }
    [[nodiscard]] int childCount() const override { return 0; }
    [[nodiscard]] int indexOfChild(const QAccessibleInterface*) const override { return -1; }
    [[nodiscard]] QString text(QAccessible::Text what) const override {
        return isValid() && what == QAccessible::Name ? parts_->part_name(part_) : QString();
    }
    void setText(QAccessible::Text, const QString&) override {}
    [[nodiscard]] QRect rect() const override {
        if (!isValid()) return {};
        const auto place = parts_->part_place(part_);
        return {widget_->mapToGlobal(place.topLeft()), place.size()};
    }
    [[nodiscard]] QAccessible::Role role() const override {
        return isValid() && parts_->parts_are_pages() ? QAccessible::PageTab : QAccessible::ListItem;
    }
    [[nodiscard]] QAccessible::State state() const override {
        QAccessible::State out;
        if (!isValid()) {
            out.invalid = true;
            return out;
        }
        out.selectable = out.focusable = true;
        out.selected = parts_->current_part() == part_;
        out.focused = out.selected && widget_->hasFocus();
        out.invisible = !widget_->isVisible() || parts_->part_place(part_).isEmpty();
        return out;
    }
    void* interface_cast(QAccessible::InterfaceType type) override {
        return type == QAccessible::ActionInterface ? static_cast<QAccessibleActionInterface*>(this) : nullptr;
    }
    [[nodiscard]] QStringList actionNames() const override { return {pressAction()}; }
    void doAction(const QString& action) override {
        if (isValid() && action == pressAction()) parts_->choose_part(part_);
    }
    [[nodiscard]] QStringList keyBindingsForAction(const QString&) const override { return {}; }

private:
    QPointer<QWidget> widget_;
    WithParts* parts_;
    int part_;
};

class Parts : public QAccessibleWidget {
public:
    Parts(QWidget* widget, WithParts* parts)
        : QAccessibleWidget(widget, parts->parts_are_pages() ? QAccessible::PageTabList : QAccessible::List), parts_(parts) {}
    ~Parts() override {
        for (const auto& [part, id] : made_) QAccessible::deleteAccessibleInterface(id);
    }
    [[nodiscard]] int childCount() const override { return parts_->part_count(); }
    [[nodiscard]] QAccessibleInterface* child(int index) const override {
        if (index < 0 || index >= parts_->part_count()) return nullptr;
        auto known = made_.find(index);
        if (known == made_.end())
            known = made_.emplace(index, QAccessible::registerAccessibleInterface(new Part(widget(), parts_, index))).first;
        return QAccessible::accessibleInterface(known->second);
    }
    [[nodiscard]] QAccessibleInterface* childAt(int x, int y) const override {
        const auto at = widget()->mapFromGlobal(QPoint(x, y));
        const int part = parts_->part_at(at);
        return part >= 0 ? child(part) : nullptr;
    }
    [[nodiscard]] int indexOfChild(const QAccessibleInterface* one) const override {
        for (const auto& [part, id] : made_)
            if (QAccessible::accessibleInterface(id) == one) return part;
        return -1;
    }
    [[nodiscard]] QAccessibleInterface* focusChild() const override {
        return widget()->hasFocus() ? child(parts_->current_part()) : nullptr;
    }
    [[nodiscard]] QString text(QAccessible::Text what) const override {
        if (what == QAccessible::Value && parts_->current_part() >= 0 && parts_->current_part() < parts_->part_count())
            return parts_->part_name(parts_->current_part());
        return QAccessibleWidget::text(what);
    }

private:
    WithParts* parts_;
    mutable std::map<int, QAccessible::Id> made_;  ///< of those that were asked for; there may be a hundred thousand
};

class Picture : public QAccessibleWidget {
public:
    Picture(QWidget* widget, WithDescription* described) : QAccessibleWidget(widget, QAccessible::Graphic), described_(described) {}
    [[nodiscard]] QString text(QAccessible::Text what) const override {
        if (what == QAccessible::Value || (what == QAccessible::Description && widget()->accessibleDescription().isEmpty()))
            return described_->described();
        return QAccessibleWidget::text(what);
    }

private:
    WithDescription* described_;
};

QAccessibleInterface* interface_of(const QString&, QObject* object) {
    auto* widget = qobject_cast<QWidget*>(object);
    if (!widget) return nullptr;
    if (auto* parts = dynamic_cast<WithParts*>(widget)) return new Parts(widget, parts);
    if (auto* described = dynamic_cast<WithDescription*>(widget)) return new Picture(widget, described);
    return nullptr;
}

}  // namespace

int WithParts::part_at(QPoint place) const {
    for (int i = 0; i < part_count(); ++i)
        if (part_place(i).contains(place)) return i;
    return -1;
}

void make_accessible() { QAccessible::installFactory(interface_of); }

void tell_part_chosen(QWidget* widget) {
    const auto* parts = dynamic_cast<WithParts*>(widget);
    if (!parts || !QAccessible::isActive()) return;
    QAccessibleEvent selected(widget, QAccessible::Selection);
    selected.setChild(parts->current_part());
    QAccessible::updateAccessibility(&selected);
    if (!widget->hasFocus()) return;
    QAccessibleEvent focused(widget, QAccessible::Focus);
    focused.setChild(parts->current_part());
    QAccessible::updateAccessibility(&focused);
}

}  // namespace skivet::app
