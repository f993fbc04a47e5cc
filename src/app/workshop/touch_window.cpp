#include "app/workshop/touch_window.h"

#include <cmath>
#include <QCheckBox>
#include <QColorDialog>
#include <QFileDialog>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QLineEdit>
#include <QMenu>
#include <QScreen>
#include <QSlider>
#include <utility>

#include "app/guide_window.h"
#include "app/language.h"
#include "app/models/left_state.h"
#include "app/pages/page.h"
#include "app/theme/theme.h"
#include "app/widgets/button.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/helpers.h"
#include "app/workshop/workshop_actions.h"

namespace skivet::app {
namespace {

constexpr int slider_steps = 1000;

QLineEdit* small_field(const QString& text, const QString& name) {
    auto* field = new QLineEdit(text);
    field->setProperty("small", true);
    field->setAccessibleName(name);
    return field;
}

/// What a value is before anybody said it: in the middle, mid gray-blue, the first choice.
TouchValue first_value(const TouchParam& p) {
    TouchValue out;
    if (p.kind == TouchParamKind::number) out.number = p.least < 0 ? 0 : p.most <= 360 && p.least == 0 ? std::round(p.most / 4) : p.least;
    if (p.kind == TouchParamKind::color) out.color = {0.63f, 0.19f, 0.13f, 1};
    return out;
}

QColor to_color(const std::array<float, 4>& c) { return QColor::fromRgbF(c[0], c[1], c[2]); }

QStringList choices_of(const TouchParam& p) {
    QStringList out;
    for (const auto& word : to_text(p.choices).replace('_', ' ').split('|')) out << spoken(word.toStdString());
    return out;
}

/// A color as a field, and a button that shows it and opens the system's chooser.
QWidget* color_control(QWidget* parent, const QString& name, const std::array<float, 4>& color,
                       std::function<void(std::array<float, 4>)> use) {
    auto* both = new QWidget;
    auto* row = new QHBoxLayout(both);
    row->setContentsMargins(0, 0, 0, 0);
    auto* field = small_field(to_color(color).name(), name);
    auto* swatch = new QPushButton;
    swatch->setAccessibleName(QObject::tr("%1: choose").arg(name));
    swatch->setAutoDefault(false);
    swatch->setFixedSize(44, 26);
    const auto paint = [swatch](const QColor& c) {
        swatch->setStyleSheet(QStringLiteral("background: %1; border: 1px solid #8a8a8a; border-radius: 4px;").arg(c.name()));
    };
    paint(to_color(color));
    const auto take = [=](const QColor& c) {
        paint(c);
        use({float(c.redF()), float(c.greenF()), float(c.blueF()), 1});
    };
    QObject::connect(field, &QLineEdit::textEdited, both, [take](const QString& text) {
        if (text.size() == 7 && QColor::isValidColorName(text)) take(QColor(text));
    });
    QObject::connect(swatch, &QPushButton::clicked, both, [=] {
        const auto chosen = QColorDialog::getColor(QColor(field->text()), parent, name);
        if (!chosen.isValid()) return;
        field->setText(chosen.name());
        take(chosen);
    });
    row->addWidget(field, 1);
    row->addWidget(swatch);
    return both;
}

QWidget* file_control(QWidget* parent, const QString& name, const std::string& file, const QString& folder,
                      std::function<void(std::string)> use) {
    auto* both = new QWidget;
    auto* row = new QHBoxLayout(both);
    row->setContentsMargins(0, 0, 0, 0);
    auto* field = small_field(to_text(file), name);
    auto* choose = new Button(QObject::tr("Choose…"), Button::Look::plain);
    choose->setAutoDefault(false);
    QObject::connect(field, &QLineEdit::editingFinished, both, [=] { use(field->text().toStdString()); });
    QObject::connect(choose, &QPushButton::clicked, both, [=] {
        const auto chosen = QFileDialog::getOpenFileName(parent, name, folder);
        if (chosen.isEmpty()) return;
        field->setText(chosen);
        use(chosen.toStdString());
    });
    row->addWidget(field, 1);
    row->addWidget(choose);
    return both;
}

/// A number as a slider and a field.
QWidget* number_control(const QString& name, double value, double least, double most, std::function<void(double)> use) {
    auto* both = new QWidget;
    auto* row = new QHBoxLayout(both);
    row->setContentsMargins(0, 0, 0, 0);
    auto* slider = new QSlider(Qt::Horizontal);
    slider->setAccessibleName(name);
    slider->setRange(0, slider_steps);
    const auto place = [=](double v) { return int(std::lround((v - least) / (most - least) * slider_steps)); };
    slider->setValue(place(value));
    auto* field = small_field(QString::number(value), QObject::tr("%1, as a number").arg(name));
    field->setFixedWidth(72);
    field->setFont(number_font(12));
    // Whole numbers where the range is wide, else two places.
    const double step = most - least >= 100 ? 1 : 0.01;
    QObject::connect(slider, &QSlider::valueChanged, both, [=](int at) {
        const auto v = std::round((least + (most - least) * at / slider_steps) / step) * step;
        field->setText(QString::number(v));
        use(v);
    });
    QObject::connect(field, &QLineEdit::editingFinished, both, [=] {
        bool sound = false;
        const auto v = QLocale::c().toDouble(field->text(), &sound);
        if (!sound || v < least || v > most)
            return field->setText(QString::number(least + (most - least) * slider->value() / slider_steps));
        const QSignalBlocker quiet(slider);
        slider->setValue(place(v));
        use(v);
    });
    row->addWidget(slider, 1);
    row->addWidget(field);
    return both;
}

}  // namespace

TouchWindow::TouchWindow(QWidget* parent, BenchModel* model, std::vector<PieceId> pieces)
    : QDialog(parent), model_(model), pieces_(std::move(pieces)) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName(QStringLiteral("touch"));
    const auto& shown = *model_->piece(pieces_.front());
    const bool one = pieces_.size() == 1;
    setWindowTitle(tr("Touch up %1").arg(to_text(shown.name())));
    resize(QSize(1180, 720).boundedTo(screen()->availableSize()));
    keep_size(this, "touch-ups");
    set_help(this, "touch-ups");
    if (one)
        for (const auto& text : shown.touches)
            if (auto touch = parse_touch_up(text)) touches_.push_back(std::move(*touch));

    auto* all = new QHBoxLayout(this);
    all->setContentsMargins(16, 16, 16, 16);
    all->setSpacing(16);
    auto* left = new QVBoxLayout;
    left->addWidget(make_label(to_text(shown.name()), "title"));
    left->addWidget(make_label(one ? tr("The file in the work folder stays as it is; touch-ups are made on what it holds.")
                                   : tr("What is chosen here is made behind the touch-ups that the %1 pieces have.").arg(pieces_.size()),
                               "soft", true));
    auto* pictures = new QHBoxLayout;
    pictures->setSpacing(12);
    auto* view = new SharedView(this);
    before_ = new ImageView(view);
    after_ = new ImageView(view);
    for (auto [picture, name] : {std::pair{before_, tr("Before")}, std::pair{after_, tr("With the touch-ups")}}) {
        auto* column = new QVBoxLayout;
        column->addWidget(make_label(name, "strong"));
        picture->setAccessibleName(name);
        picture->setMinimumSize(200, 200);
        column->addWidget(picture, 1);
        pictures->addLayout(column, 1);
    }
    left->addLayout(pictures, 1);
    wrong_ = make_label({}, "warning", true);
    left->addWidget(wrong_);
    all->addLayout(left, 1);

    auto* panel = make_panel();
    panel->setFixedWidth(432);
    auto* right = new QVBoxLayout(panel);
    right->setContentsMargins(12, 12, 12, 10);
    right->addWidget(make_label(tr("TOUCH-UPS, IN ORDER"), "heading"));
    auto* menu = new QMenu(this);
    menu->setObjectName(QStringLiteral("touch_menu"));
    menu->setToolTipsVisible(true);
    std::string_view group;
    for (const auto& row : all_touch_ups()) {
        if (row.resizes) continue;  // the game's size is what a piece has
        if (std::exchange(group, row.group) != row.group) menu->addSection(to_text(row.group));
        auto* entry = menu->addAction(spoken(row.words), this, [this, &row] { add(row); });
        entry->setToolTip(spoken(row.does));
    }
    list_ = new QListWidget;
    list_->setObjectName(QStringLiteral("touches"));
    list_->setAccessibleName(tr("Touch-ups, in order"));
    list_->setWordWrap(true);
    connect(list_, &QListWidget::currentRowChanged, this, &TouchWindow::show_controls);
    right->addWidget(list_, 1);
    auto* adding = add_workshop_action(this, "touch-ups/add");
    up_ = add_workshop_action(this, "touch-ups/earlier", [this] { move(-1); });
    down_ = add_workshop_action(this, "touch-ups/later", [this] { move(1); });
    remove_ = add_workshop_action(this, "touch-ups/remove", [this] { remove(); });
    keep_ = add_workshop_action(this, "touch-ups/keep", [this, one] {
        take_typed();
        model_->touch(pieces_, texts(), !one);
        accept();
    });
    if (!one) keep_->setText(tr("Keep for %L1 pieces").arg(pieces_.size()));
    auto* adder = new Button(adding, Button::Look::plain);
    adder->setObjectName(QStringLiteral("touch_add"));
    adder->setAutoDefault(false);
    connect(adding, &QAction::triggered, menu, [menu, adder] { menu->popup(adder->mapToGlobal(QPoint(0, adder->height() + 2))); });
    right->insertWidget(1, adder);
    auto* moves = new FlowRow;
    const auto button = [](QAction* what, Button::Look look) {
        auto* out = new Button(what, look);
        out->setAutoDefault(false);
        return out;
    };
    moves->addWidget(button(up_, Button::Look::plain));
    moves->addWidget(button(down_, Button::Look::plain));
    moves->addStretch();
    moves->addWidget(button(remove_, Button::Look::plain));
    right->addLayout(moves);
    auto* card = make_card();
    controls_ = new QVBoxLayout(card);
    controls_->setContentsMargins(12, 10, 12, 10);
    right->addWidget(card);
    auto* bottom = new FlowRow;
    auto* lists = new QMenu(this);
    lists->setObjectName(QStringLiteral("touch_lists"));
    connect(lists, &QMenu::aboutToShow, this, [this, lists] { fill_lists(lists); });
    auto* listing = add_workshop_action(this, "touch-ups/lists");
    auto* lists_button = button(listing, Button::Look::plain);
    connect(listing, &QAction::triggered, lists,
            [lists, lists_button] { lists->popup(lists_button->mapToGlobal(QPoint(0, lists_button->height() + 2))); });
    bottom->addWidget(lists_button);
    bottom->addStretch();
    auto* keep = button(keep_, Button::Look::primary);
    keep->setObjectName(QStringLiteral("touch_keep"));
    bottom->addWidget(keep);
    right->addLayout(bottom);
    all->addWidget(panel);

    settle_.setSingleShot(true);
    settle_.setInterval(60);
    connect(&settle_, &QTimer::timeout, this, &TouchWindow::make_preview);
    const auto behind = one ? std::vector<std::string>() : shown.touches;
    model_->preview(this, pieces_.front(), behind, {}, [this](Result<QImage> made) {
        if (made) before_->set_image(*made);
        else before_->set_message(to_text(made.error().message()));
    });
    fill_list(0);
    make_preview();
    adder->setFocus();
}

TouchWindow::~TouchWindow() { cancel_.cancel(); }

std::vector<std::string> TouchWindow::texts() const {
    std::vector<std::string> out;
    for (const auto& touch : touches_) out.push_back(text_of(touch));
    return out;
}

void TouchWindow::take_typed() {
    if (auto* field = qobject_cast<QLineEdit*>(focusWidget())) field->clearFocus();
}

void TouchWindow::add(const TouchRow& row) {
    take_typed();
    TouchUp touch;
    touch.row = &row;
    for (const auto& p : row.params) {
        auto usual = p.usual.empty() ? std::optional<TouchValue>() : usual_value(row, p);
        touch.values.push_back(usual ? *usual : first_value(p));
    }
    const auto at = std::min(std::size_t(list_->currentRow() + 1), touches_.size());
    touches_.insert(touches_.begin() + std::ptrdiff_t(at), std::move(touch));
    fill_list(int(at));
    changed();
}

void TouchWindow::fill_lists(QMenu* menu) {
    menu->clear();
    auto* keep = menu->addAction(tr("Keep these as…"), this, [this] {
        auto* ask = new QInputDialog(this);
        ask->setAttribute(Qt::WA_DeleteOnClose);
        ask->setObjectName(QStringLiteral("touch_list_name"));
        ask->setWindowTitle(tr("Keep these touch-ups"));
        ask->setLabelText(tr("A name for them, to use them in every project:"));
        ask->setOkButtonText(tr("Keep"));
        connect(ask, &QInputDialog::textValueSelected, this, [this](const QString& name) {
            const auto done = lists_.keep(name.trimmed().toStdString(), touches_);
            wrong_->setText(done ? QString() : to_text(done.error().message()));
        });
        ask->open();
    });
    keep->setEnabled(!touches_.empty());
    const auto names = lists_.names();
    if (!names.empty()) menu->addSection(tr("Add"));
    for (const auto& name : names) menu->addAction(to_text(name), this, [this, name] { use_list(name); });
}

void TouchWindow::use_list(const std::string& name) {
    auto more = lists_.read(name);
    if (!more) return wrong_->setText(to_text(more.error().message()));
    for (auto& touch : *more)
        if (!touch.row->resizes) touches_.push_back(std::move(touch));
    fill_list(int(touches_.size()) - 1);
    changed();
}

void TouchWindow::move(int by) {
    take_typed();
    const int at = list_->currentRow(), to = at + by;
    if (at < 0 || to < 0 || to >= int(touches_.size())) return;
    std::swap(touches_[std::size_t(at)], touches_[std::size_t(to)]);
    fill_list(to);
    changed();
}

void TouchWindow::remove() {
    take_typed();
    const int at = list_->currentRow();
    if (at < 0) return;
    touches_.erase(touches_.begin() + at);
    fill_list(std::min(at, int(touches_.size()) - 1));
    changed();
}

void TouchWindow::fill_list(int current) {
    const QSignalBlocker quiet(list_);
    list_->clear();
    for (const auto& touch : touches_) list_->addItem(to_text(describe(touch)));
    list_->setCurrentRow(std::clamp(current, touches_.empty() ? -1 : 0, int(touches_.size()) - 1));
    show_controls();
}

void TouchWindow::show_controls() {
    // The old controls go a little later and must not speak of another touch-up then.
    for (auto* old : controls_->parentWidget()->findChildren<QWidget*>()) {
        old->blockSignals(true);
        old->setObjectName({});
    }
    clear_column(controls_);
    const int at = list_->currentRow();
    up_->setEnabled(at > 0);
    down_->setEnabled(at >= 0 && at + 1 < int(touches_.size()));
    remove_->setEnabled(at >= 0);
    if (at < 0) {
        controls_->addWidget(make_label(tr("Nothing is changed yet"), "strong"));
        controls_->addWidget(
            make_label(tr("Add a touch-up above: it is made on the picture at once, and can be changed or removed later."), "soft", true));
        return;
    }
    auto& touch = touches_[std::size_t(at)];
    controls_->addWidget(make_label(spoken(touch.row->words), "strong"));
    controls_->addWidget(make_label(spoken(touch.row->does), "soft", true));
    auto* holder = new QWidget;
    auto* form = new QFormLayout(holder);
    form->setContentsMargins(0, 4, 0, 0);
    for (std::size_t i = 0; i < touch.row->params.size(); ++i) add_param(form, i);
    add_mask(form);
    controls_->addWidget(holder);
}

void TouchWindow::add_param(QFormLayout* form, std::size_t i) {
    const auto at = std::size_t(list_->currentRow());
    const auto& p = touches_[at].row->params[i];
    const auto& value = touches_[at].values[i];
    const auto name = spoken(p.words);
    QWidget* control = nullptr;
    switch (p.kind) {
        case TouchParamKind::number:
            control = number_control(name, value.number, p.least, p.most, [this, at, i](double v) {
                touches_[at].values[i].number = v;
                changed();
            });
            break;
        case TouchParamKind::color:
            control = color_control(this, name, value.color, [this, at, i](std::array<float, 4> color) {
                touches_[at].values[i].color = color;
                changed();
            });
            break;
        case TouchParamKind::file:
            control = file_control(this, name, value.file, to_text(model_->work_folder()), [this, at, i](std::string file) {
                touches_[at].values[i].file = std::move(file);
                changed();
            });
            break;
        case TouchParamKind::choice: {
            auto* box = new QComboBox;
            box->setAccessibleName(name);
            box->addItems(choices_of(p));
            box->setCurrentIndex(int(value.number));
            connect(box, &QComboBox::activated, this, [this, at, i](int index) {
                touches_[at].values[i].number = index;
                changed();
            });
            control = box;
        }
    }
    form->addRow(make_label(name, "soft"), control);
}

void TouchWindow::add_mask(QFormLayout* form) {
    const auto at = std::size_t(list_->currentRow());
    const auto mask = touches_[at].mask;
    using By = TouchMask::By;
    auto* where = new QComboBox;
    where->setObjectName(QStringLiteral("touch_where"));
    where->setAccessibleName(tr("Where"));
    where->addItems({tr("everywhere"), tr("where red is high"), tr("where green is high"), tr("where blue is high"),
                     tr("where alpha is high"), tr("where it is bright"), tr("near a color"), tr("where a picture is bright")});
    where->setCurrentIndex(mask.by == By::everywhere ? 0 : mask.by == By::channel ? 1 + int(mask.channel) : mask.by == By::color ? 6 : 7);
    connect(where, &QComboBox::activated, this, [this, at](int index) {
        auto& now = touches_[at].mask;
        now.by = index == 0 ? By::everywhere : index < 6 ? By::channel : index == 6 ? By::color : By::file;
        if (now.by == By::channel) now.channel = std::size_t(index - 1);
        if (now.by == By::everywhere) now.inverted = false;
        fill_list(int(at));
        if (auto* again = findChild<QComboBox*>(QStringLiteral("touch_where"))) again->setFocus();  // this one is going
        if (now.by != By::file || !now.file.empty()) changed();
    });
    form->addRow(make_label(tr("Where"), "soft"), where);
    if (mask.by == By::everywhere) return;
    if (mask.by == By::color) {
        form->addRow(make_label(tr("Color"), "soft"), color_control(this, tr("Color of the mask"), mask.color, [this, at](auto color) {
                         touches_[at].mask.color = color;
                         changed();
                     }));
        form->addRow(make_label(tr("How near"), "soft"), number_control(tr("How near"), mask.within, 0.01, 1, [this, at](double v) {
                         touches_[at].mask.within = v;
                         changed();
                     }));
    }
    if (mask.by == By::file)
        form->addRow(make_label(tr("Picture"), "soft"),
                     file_control(this, tr("Picture of the mask"), mask.file, to_text(model_->work_folder()), [this, at](std::string file) {
                         touches_[at].mask.file = std::move(file);
                         changed();
                     }));
    auto* other = new QCheckBox(tr("the other way round"));
    other->setChecked(mask.inverted);
    connect(other, &QCheckBox::toggled, this, [this, at](bool on) {
        touches_[at].mask.inverted = on;
        changed();
    });
    form->addRow(QString(), other);
}

void TouchWindow::changed() {
    for (int i = 0; i < list_->count() && i < int(touches_.size()); ++i)
        list_->item(i)->setText(to_text(describe(touches_[std::size_t(i)])));
    settle_.start();
}

void TouchWindow::make_preview() {
    cancel_.cancel();
    cancel_ = CancelToken();
    auto list = pieces_.size() == 1              ? std::vector<std::string>()
                : model_->piece(pieces_.front()) ? model_->piece(pieces_.front())->touches
                                                 : std::vector<std::string>();
    const auto own = texts();
    list.insert(list.end(), own.begin(), own.end());
    model_->preview(this, pieces_.front(), std::move(list), cancel_, [this, asked = ++asked_](Result<QImage> made) {
        if (asked != asked_) return;
        wrong_->setText(made ? QString() : to_text(made.error().message()));
        keep_->setEnabled(made.has_value());
        if (made) after_->set_image(*made);
    });
}

}  // namespace skivet::app
