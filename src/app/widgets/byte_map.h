#pragma once
#include <QWidget>

#include "app/widgets/accessible.h"
#include "workflow/catalog_snapshot.h"

namespace skivet::app {

/// An archive as one strip: tables, textures, other data, gaps.
class ByteMap : public QWidget, public WithDescription {
    Q_OBJECT
public:
    explicit ByteMap(QWidget* parent = nullptr);
    void show_source(std::shared_ptr<const CatalogSnapshot> snapshot, std::size_t source);
    /// Index into the source's segments; -1: none.
    void select_entry(int entry);
    [[nodiscard]] QSize sizeHint() const override { return {400, 92}; }
    [[nodiscard]] quint64 gap_bytes() const;
    [[nodiscard]] QString described() const override;

signals:
    void entry_chosen(int entry);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    bool event(QEvent* event) override;

private:
    enum Kind { table, texture, other, gap };
    [[nodiscard]] Kind kind_of(const Segment& segment) const;
    [[nodiscard]] const Segment* at(double x) const;
    [[nodiscard]] const std::vector<Segment>& segments() const;
    std::shared_ptr<const CatalogSnapshot> snapshot_;
    std::size_t source_ = 0;
    quint64 size_ = 0;
    int entry_ = -1;
};

/// An archive as one gray strip with the stretches that will be written.
class WriteStrip : public QWidget, public WithDescription {
    Q_OBJECT
public:
    WriteStrip(quint64 size, std::vector<std::pair<quint64, quint64>> ranges, QWidget* parent = nullptr);
    [[nodiscard]] QSize sizeHint() const override { return {400, 36}; }
    [[nodiscard]] QString described() const override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    quint64 size_;
    std::vector<std::pair<quint64, quint64>> ranges_;
};

}  // namespace skivet::app
