// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/specimen_view.h"

#include "app/parts/page_parts.h"
#include "app/plan/shape_drawing.h"
#include "app/plan/test_choice.h"
#include "app/theme/plain_texts.h"
#include "core/planning/print_estimate.h"

#include <QEvent>
#include <QListWidget>
#include <QPainter>

namespace inchpeg::app
{

namespace
{

constexpr QSize kIcon{100, 34};
constexpr int kShelfWidth = 206;

QIcon iconOf(const SpecimenShape &shape, qreal ratio)
{
    QPixmap pixmap(kIcon * ratio);
    pixmap.setDevicePixelRatio(ratio);
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    painter.setRenderHint(QPainter::Antialiasing);
    // All to one scale, so that sizes can be compared; small ones would vanish and are drawn larger.
    const double scale = std::max(0.55, 22.0 / shape.length_mm);
    const double width = std::min(kIcon.width() - 4.0, shape.length_mm * scale);
    const QRectF room(2.0, 2.0, width, kIcon.height() - 4.0);
    paintShape(painter, room, shape, currentTheme(), 1.0);
    return pixmap;
}

} // namespace

SpecimenView::SpecimenView(PlanPresenter &presenter, QWidget *parent)
    : QWidget(parent), m_presenter(presenter)
{
    setObjectName(QStringLiteral("specimenView"));
    m_shelf = new QListWidget;
    m_shelf->setObjectName(QStringLiteral("shapeShelf"));
    m_shelf->setAccessibleName(tr("Specimen shapes"));
    m_shelf->setIconSize(kIcon);
    m_shelf->setWordWrap(true);
    m_shelf->setTextElideMode(Qt::ElideNone);
    m_shelf->setMinimumWidth(kShelfWidth);
    m_shelf->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_test = new TestChoice(presenter);
    m_test->setObjectName(QStringLiteral("specimenTest"));
    m_drawing = new ShapeDrawing;
    m_words = new QLabel;
    showRich(*m_words);
    m_words->setWordWrap(true);
    m_words->setObjectName(QStringLiteral("shapeWords"));
    auto *grid = new QGridLayout;
    createDimensions(grid);
    auto *right = new QVBoxLayout;
    right->addWidget(m_words);
    right->addWidget(m_drawing, 1);
    right->addLayout(grid);
    auto *left = new QVBoxLayout;
    left->addWidget(heading(tr("The shelf of shapes")));
    left->addWidget(m_test);
    left->addWidget(m_shelf, 1);
    auto *layout = new QHBoxLayout(this);
    layout->setContentsMargins(18, 8, 18, 10);
    layout->setSpacing(14);
    layout->addLayout(left);
    layout->addLayout(right, 1);
    fillShelf();
    connect(m_test, &TestChoice::chosen, this, &SpecimenView::refresh);
    const auto take = [this](int row) {
        if (row >= 0 && m_presenter.session().study() != nullptr)
            m_presenter.setShape(m_test->planned().method, shapeShelf()[static_cast<std::size_t>(row)]);
    };
    connect(m_shelf, &QListWidget::currentRowChanged, this, take);
    // The usual shape is marked before anyone has chosen it; a click settles it.
    connect(m_shelf, &QListWidget::itemClicked, this, [this, take] { take(m_shelf->currentRow()); });
    connect(m_shelf, &QListWidget::itemActivated, this, [this, take] { take(m_shelf->currentRow()); });
}

void SpecimenView::fillShelf()
{
    const QSignalBlocker blocker(m_shelf);
    const int row = m_shelf->currentRow();
    m_shelf->clear();
    for (const SpecimenShape &shape : shapeShelf()) {
        auto *item = new QListWidgetItem(iconOf(shape, devicePixelRatioF()), QString(), m_shelf);
        const QString name = QString::fromStdString(shape.name);
        const QString standard =
            shape.standard.empty() ? tr("no standard") : QString::fromStdString(shape.standard);
        item->setText(name);
        item->setSizeHint(QSize(kShelfWidth - 24, kIcon.height() + 6));
        item->setToolTip(name + QLatin1Char('\n') + standard);
    }
    m_shelf->setCurrentRow(row);
}

void SpecimenView::createDimensions(QGridLayout *grid)
{
    struct Row {
        double SpecimenShape::*member;
        const char *name;
        QString label;
    };
    const Row rows[] = {{&SpecimenShape::length_mm, "shapeLength", tr("Length")},
                        {&SpecimenShape::width_mm, "shapeWidth", tr("Width")},
                        {&SpecimenShape::thickness_mm, "shapeThickness", tr("Thickness")},
                        {&SpecimenShape::endWidth_mm, "shapeEndWidth", tr("Grip width")},
                        {&SpecimenShape::parallel_mm, "shapeParallel", tr("Narrow part")},
                        {&SpecimenShape::radius_mm, "shapeRadius", tr("Shoulders")},
                        {&SpecimenShape::span_mm, "shapeSpan", tr("Span")},
                        {&SpecimenShape::notchDepth_mm, "shapeNotch", tr("Notch depth")},
                        {&SpecimenShape::holeDiameter_mm, "shapeHole", tr("Hole")}};
    int index = 0;
    for (const Row &row : rows) {
        auto *edit = lineEdit(row.name, row.label);
        auto *label = new QLabel(row.label);
        label->setBuddy(edit);
        edit->setMinimumWidth(kNarrowestField);
        const int line = index / 2;
        const int column = 2 * (index % 2);
        grid->addWidget(label, line, column);
        grid->addWidget(edit, line, column + 1);
        grid->setColumnStretch(column + 1, 1);
        m_dimensions.push_back({row.member, label, edit});
        ++index;
        onTyped(
            edit,
            [this, member = row.member](const QString &text) {
                setDimension(member, text);
                return false; // the field shows what holds
            },
            [this] { refresh(); });
    }
}

void SpecimenView::setDimension(double SpecimenShape::*member, const QString &text)
{
    const Notation &notation = m_presenter.session().notation();
    const Result<double> typed = parseQuantity(text.toStdString(), notation.unitOf(Dimension::Length));
    if (!typed) {
        m_presenter.session().tell(typed.error());
        return;
    }
    SpecimenShape shape = m_test->planned().shape;
    if (shape.*member == *typed)
        return;
    shape.*member = *typed;
    // It is no longer the shape of the shelf, nor of a standard.
    shape.key = "own";
    shape.standard.clear();
    if (!QString::fromStdString(shape.name).startsWith(tr("own ")))
        shape.name = tr("own ").toStdString() + shape.name;
    m_presenter.setShape(m_test->planned().method, shape);
}

void SpecimenView::refresh()
{
    m_test->refresh();
    const PlannedTest &test = m_test->planned();
    const Notation &notation = m_presenter.session().notation();
    const std::span<const SpecimenShape> shelf = shapeShelf();
    {
        const QSignalBlocker blocker(m_shelf);
        int row = -1;
        for (std::size_t i = 0; i < shelf.size(); ++i) {
            if (shelf[i] == test.shape)
                row = static_cast<int>(i);
        }
        m_shelf->setCurrentRow(row);
    }
    m_drawing->set(test.shape, notation);
    const Result<Area> area = areaOf(nominalSection(test.shape));
    QString words = QStringLiteral("<b>%1</b>").arg(QString::fromStdString(test.shape.name).toHtmlEscaped());
    words += test.shape.standard.empty()
                 ? tr(", no standard")
                 : QStringLiteral(", ") + QString::fromStdString(test.shape.standard).toHtmlEscaped();
    if (test.setup.shape.key.empty())
        words += tr(" (usual for %1)").arg(QString::fromUtf8(methodName(test.method)));
    words += tr("<br>Section that is loaded: %1. Volume: %2 cm³.")
                 .arg(area ? QString::fromStdString(notation.quantity(in_mm2(*area), Dimension::Area, 3))
                           : tr("none"))
                 .arg(volume_mm3(test.shape) / 1e3, 0, 'f', 2);
    if (!test.shape.standard.empty())
        words += tr("<br>Check the dimensions against your copy of the standard before you report by it.");
    m_words->setText(words);
    for (const DimensionField &field : m_dimensions) {
        const double value = test.shape.*field.member;
        const bool used = value > 0.0;
        field.label->setVisible(used);
        field.edit->setVisible(used);
        if (used)
            showText(field.edit,
                     QString::fromStdString(
                         notation.plain(notation.unitOf(Dimension::Length).fromWorking(value), 4)) +
                         QLatin1Char(' ') + QString::fromUtf8(notation.unitOf(Dimension::Length).symbol));
    }
    m_dimensions[1].label->setText(isRound(test.shape) ? tr("Diameter") : tr("Width"));
}

void SpecimenView::changeEvent(QEvent *event)
{
    QWidget::changeEvent(event);
    if (event->type() == QEvent::PaletteChange)
        fillShelf();
}

} // namespace inchpeg::app
