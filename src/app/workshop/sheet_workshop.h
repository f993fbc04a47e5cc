#pragma once
// The sheet workshop: a sheet's text on one side, what it makes of an archive's bytes on the other, live.
#include <QAbstractTableModel>
#include <QDialog>
#include <QLabel>
#include <QPlainTextEdit>
#include <QTableView>

#include "app/models/sources_model.h"
#include "app/widgets/accessible.h"
#include "container/draft_sheet.h"
#include "container/sheet_try.h"

namespace skivet::app {

/// The fields of a trial: where, bytes, name, value, meaning.
class TriedFields : public QAbstractTableModel {
    Q_OBJECT
public:
    using QAbstractTableModel::QAbstractTableModel;
    void set(std::shared_ptr<const Trial> trial);
    [[nodiscard]] const TriedField* field(int row) const;
    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : 5; }
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

private:
    std::shared_ptr<const Trial> trial_;
};

/// Rows of sixteen bytes around a stretch, which is marked.
class BytesView : public QWidget, public WithDescription {
    Q_OBJECT
public:
    explicit BytesView(QWidget* parent = nullptr);
    /// `bytes` begin at `at` in the file; [from, to) is marked.
    void set(QByteArray bytes, quint64 at, quint64 from, quint64 to);
    [[nodiscard]] QSize sizeHint() const override { return {560, 132}; }
    [[nodiscard]] QString described() const override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    QByteArray bytes_;
    quint64 at_ = 0, from_ = 0, to_ = 0;
};

/// The archive as a strip: what the sheet takes for tables and entries, and, marked, what it does not explain.
class ExplainedStrip : public QWidget, public WithDescription {
    Q_OBJECT
public:
    using QWidget::QWidget;
    void set(std::shared_ptr<const Trial> trial, quint64 size);
    [[nodiscard]] QSize sizeHint() const override { return {400, 26}; }
    [[nodiscard]] QString described() const override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    std::shared_ptr<const Trial> trial_;
    quint64 size_ = 1;
};

class SheetWorkshop : public QDialog {
    Q_OBJECT
public:
    SheetWorkshop(QWidget* parent, SourcesModel* sources, FileView archive);
    ~SheetWorkshop() override { cancel_.cancel(); }  // nobody waits for a draft or a proof any more
    /// True when what is shown belongs to the text.
    [[nodiscard]] bool settled() const { return !trying_ && !later_.isActive(); }

private:
    void try_now();
    void draft();
    void prove();
    void keep();
    void show_field(int row);
    void say(const QString& text, bool bad);
    /// As the project reads, and with what the last draft found: keys, and the sheet around a hidden file. Nothing of it is kept before the
    /// sheet is.
    [[nodiscard]] std::shared_ptr<ReadContext> context() const;
    void keep_text();

    SourcesModel* sources_;
    FileView file_;     ///< as it lies there
    FileView archive_;  ///< what the sheet is tried on: the file, or what was found inside of a hidden one
    SheetDraft drafted_;
    QPlainTextEdit* text_;
    QLabel *verdict_, *recognized_;
    ExplainedStrip* strip_;
    QTableView* table_;
    TriedFields* fields_;
    BytesView* bytes_;
    QAction *prove_, *keep_;
    QTimer later_;
    bool trying_ = false, again_ = false;
    CancelToken cancel_;
};

void show_sheet_workshop(QWidget* parent, SourcesModel* sources, std::size_t source);

}  // namespace skivet::app
