#include "app/workshop/columns_window.h"

#include <QHeaderView>
#include <QPushButton>
#include <QTableWidget>

#include "app/guide_window.h"
#include "app/language.h"
#include "app/models/left_state.h"
#include "app/theme/theme.h"
#include "app/widgets/button.h"
#include "app/widgets/helpers.h"

namespace skivet::app {
namespace {

constexpr std::size_t shown_values = 4;
constexpr std::uint32_t shown_sets = 4;

/// What can be chosen, and how it is written.
std::vector<std::pair<QString, ColumnMeaning>> all_meanings() {
    std::vector<std::pair<QString, ColumnMeaning>> out{{ColumnsWindow::tr("nothing"), {}}};
    out.push_back({ColumnsWindow::tr("number of the vertex"), {VertexField::number, 0}});
    for (const auto field : {VertexField::x, VertexField::y, VertexField::z})
        out.push_back({ColumnsWindow::tr("position %1").arg(QString::fromLatin1(name_of(field).data(), qsizetype(name_of(field).size()))),
                       {field, 0}});
    const char axes[] = {'x', 'y', 'z'};
    for (int i = 0; i < 3; ++i)
        out.push_back(
            {ColumnsWindow::tr("normal %1").arg(QLatin1Char(axes[i])), {static_cast<VertexField>(int(VertexField::normal_x) + i), 0}});
    for (std::uint32_t set = 0; set < shown_sets; ++set)
        for (const auto field : {VertexField::u, VertexField::v})
            out.push_back({set == 0
                               ? ColumnsWindow::tr("texture %1").arg(QLatin1Char(field == VertexField::u ? 'u' : 'v'))
                               : ColumnsWindow::tr("texture %1, set %2").arg(QLatin1Char(field == VertexField::u ? 'u' : 'v')).arg(set + 1),
                           {field, set}});
    out.push_back({ColumnsWindow::tr("color red"), {VertexField::red, 0}});
    out.push_back({ColumnsWindow::tr("color green"), {VertexField::green, 0}});
    out.push_back({ColumnsWindow::tr("color blue"), {VertexField::blue, 0}});
    out.push_back({ColumnsWindow::tr("color alpha"), {VertexField::alpha, 0}});
    return out;
}

}  // namespace

ColumnsWindow::ColumnsWindow(QWidget* parent, std::shared_ptr<const TryOnModel::OpenTable> table)
    : QDialog(parent), table_(std::move(table)) {
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("Columns of a table of vertices"));
    resize(640, 520);
    keep_size(this, "columns");
    set_help(this, "object");
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(16, 14, 16, 12);
    box->addWidget(make_label(tr("What each column holds, as its name says. Correct what is not so; tables with the same columns are read "
                                 "the same way from then on."),
                              "soft", true));
    const auto& columns = table_->table.columns;
    auto* rows = new QTableWidget(int(columns.size()), 3);
    rows->setObjectName(QStringLiteral("columns"));
    rows->setAccessibleName(tr("Columns"));
    rows->setHorizontalHeaderLabels({tr("Column"), tr("First values"), tr("Holds")});
    rows->verticalHeader()->hide();
    rows->setEditTriggers(QAbstractItemView::NoEditTriggers);
    rows->setSelectionMode(QAbstractItemView::NoSelection);
    rows->setFocusPolicy(Qt::NoFocus);  // what can be changed has it
    rows->verticalHeader()->setDefaultSectionSize(34);
    rows->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
    const auto meanings = all_meanings();
    for (std::size_t c = 0; c < columns.size(); ++c) {
        const auto& column = columns[c];
        rows->setItem(int(c), 0, new QTableWidgetItem(QString::fromStdString(column.name)));
        QStringList values;
        for (std::size_t r = 0; r < std::min(shown_values, column.values.size()); ++r)
            values << QLocale().toString(double(column.values[r]), 'g', 5);
        auto* seen = new QTableWidgetItem(
            column.is_numbers ? values.join(QStringLiteral("   "))
                              : tr("row %L1 has \"%2\": left out").arg(column.bad_row).arg(QString::fromStdString(column.not_a_number)));
        if (!column.is_numbers) seen->setForeground(colors().mark);
        rows->setItem(int(c), 1, seen);
        auto* meaning = new QComboBox;
        meaning->setAccessibleName(tr("%1 holds").arg(QString::fromStdString(column.name)));
        for (const auto& [name, what] : meanings) meaning->addItem(name);
        const auto now = c < table_->reading.columns.size() ? table_->reading.columns[c] : ColumnMeaning{};
        const auto at = std::find_if(meanings.begin(), meanings.end(), [&](const auto& m) { return m.second == now; });
        meaning->setCurrentIndex(at == meanings.end() ? 0 : int(at - meanings.begin()));
        meaning->setEnabled(column.is_numbers);
        connect(meaning, &QComboBox::currentIndexChanged, this, &ColumnsWindow::check);
        meanings_.push_back(meaning);
        rows->setCellWidget(int(c), 2, meaning);
    }
    rows->resizeColumnToContents(0);
    rows->setColumnWidth(2, 190);
    box->addWidget(rows, 1);
    v_up_ = new QCheckBox(tr("v runs up the texture"));
    v_up_->setChecked(table_->reading.v_up);
    strip_ = new QCheckBox(tr("Each row makes a triangle with the two before it (a strip)"));
    strip_->setChecked(table_->reading.strip);
    box->addWidget(v_up_);
    box->addWidget(strip_);
    const auto end = end_form(box, tr("Use it"));
    wrong_ = end.wrong;
    use_ = end.button;
    use_->setObjectName(QStringLiteral("use_columns"));
    connect(use_, &QPushButton::clicked, this, [this] {
        emit kept(reading());
        accept();
    });
    connect(strip_, &QCheckBox::toggled, this, &ColumnsWindow::check);
    check();
}

TableReading ColumnsWindow::reading() const {
    const auto meanings = all_meanings();
    TableReading out;
    for (const auto* meaning : meanings_) out.columns.push_back(meanings[std::size_t(std::max(0, meaning->currentIndex()))].second);
    out.v_up = v_up_->isChecked();
    out.strip = strip_->isChecked();
    return out;
}

void ColumnsWindow::check() {
    // Whether it can be a mesh: asked of the first rows alone, for a table may have millions.
    VertexTable few;
    few.rows = std::min<std::size_t>(table_->table.rows, 300);
    for (const auto& column : table_->table.columns) {
        few.columns.push_back({column.name, column.is_numbers, column.not_a_number, column.bad_row, column.low, column.high, {}});
        if (column.is_numbers) few.columns.back().values.assign(column.values.begin(), column.values.begin() + long(few.rows));
    }
    const auto mesh = mesh_of(few, reading(), {});
    wrong_->setText(mesh ? QString() : spoken(mesh.error().message()));
    wrong_->setVisible(!mesh);
    use_->setEnabled(mesh.has_value());
}

}  // namespace skivet::app
