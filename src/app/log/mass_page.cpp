// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/mass_page.h"

#include "app/parts/page_parts.h"
#include "app/rack/rack_painter.h"
#include "app/theme/theme.h"
#include "core/logbook/logged_confounds.h"
#include "core/text/axis_scale.h"

#include <QPainter>
#include <QStyle>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr double kRow = 30.0;
constexpr double kAxis = 26.0;
constexpr double kRadius = 5.5;
constexpr double kLabelShare = 0.24;

} // namespace

MassChart::MassChart(ProjectSession &session, QWidget *parent) : QWidget(parent), m_session(session)
{
    setObjectName(QStringLiteral("massChart"));
    setAccessibleName(tr("Masses of the pieces, rail by rail"));
}

void MassChart::set(const MassCheck &check)
{
    m_check = check;
    setFixedHeight(static_cast<int>(kRow * static_cast<double>(check.rails.size()) + kAxis));
    update();
}

QSize MassChart::sizeHint() const
{
    return {500, static_cast<int>(kRow * static_cast<double>(m_check.rails.size()) + kAxis)};
}

void MassChart::paintEvent(QPaintEvent *)
{
    const Study *study = m_session.study();
    if (study == nullptr || study->conditions.size() != m_check.rails.size())
        return;
    double low = 0.0;
    double high = 0.0;
    for (const RailMass &rail : m_check.rails) {
        if (!rail.mass_g.min)
            continue;
        low = high > 0.0 ? std::min(low, *rail.mass_g.min) : *rail.mass_g.min;
        high = std::max(high, *rail.mass_g.max);
    }
    if (!(high > 0.0))
        return;
    const double margin = std::max(0.06 * (high - low), 1.5 * m_check.tolerance * high);
    const AxisScale scale = scaleAround({low - margin, high + margin}, 6);
    const Theme &theme = currentTheme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const double left = std::clamp(kLabelShare * width(), 90.0, 220.0);
    const double right = width() - 26.0;
    const auto xOf = [&](double mass) {
        return left + (mass - scale.low) / (scale.high - scale.low) * (right - left);
    };
    const QFontMetricsF metrics(font());
    for (std::size_t r = 0; r < m_check.rails.size(); ++r) {
        const RailMass &rail = m_check.rails[r];
        const double y = kRow * (static_cast<double>(r) + 0.5);
        painter.setPen(theme.ink);
        painter.drawText(QPointF(0.0, y + 0.35 * metrics.ascent()),
                         metrics.elidedText(QString::fromStdString(railTitle(*study, study->conditions[r])),
                                            Qt::ElideRight, left - 12.0));
        painter.setPen(QPen(theme.line, 1.0));
        painter.drawLine(QPointF(left, y), QPointF(right, y));
        if (!rail.mass_g.median)
            continue;
        const double median = *rail.mass_g.median;
        const QRectF band(QPointF(xOf(median * (1.0 - m_check.tolerance)), y - 0.36 * kRow),
                          QPointF(xOf(median * (1.0 + m_check.tolerance)), y + 0.36 * kRow));
        painter.fillRect(band, theme.rail);
        painter.setPen(QPen(theme.accent, 2.0));
        painter.drawLine(QPointF(xOf(median), band.top()), QPointF(xOf(median), band.bottom()));
        for (const Piece *piece : piecesOf(*study, rail.condition)) {
            if (!piece->log.mass_g || !isOfFirstTest(*study, *piece) || piece->exclusion)
                continue;
            const bool off = std::find(rail.off.begin(), rail.off.end(), piece->id) != rail.off.end();
            paintPeg(painter, QPointF(xOf(*correctedMass_g(piece->log)), y), kRadius,
                     off ? PegState::Doubtful : PegState::Read, false, piece->id == m_session.selectedPiece(),
                     theme);
        }
    }
    const double bottom = kRow * static_cast<double>(m_check.rails.size());
    painter.setPen(theme.softInk);
    for (const double mark : scale.marks()) {
        const QString text =
            QString::fromStdString(m_session.notation().fixed(mark, scale.decimals)) + QStringLiteral(" g");
        painter.drawLine(QPointF(xOf(mark), bottom), QPointF(xOf(mark), bottom + 4.0));
        painter.drawText(
            QPointF(xOf(mark) - 0.5 * metrics.horizontalAdvance(text), bottom + 6.0 + metrics.ascent()),
            text);
    }
}

MassPage::MassPage(ProjectSession &session, QWidget *parent) : QWidget(parent), m_session(session)
{
    setObjectName(QStringLiteral("massPage"));
    QVBoxLayout *layout = scrollingPage(this);
    m_headline = new QLabel;
    m_headline->setObjectName(QStringLiteral("massHeadline"));
    m_headline->setWordWrap(true);
    m_headline->setTextInteractionFlags(Qt::TextSelectableByMouse);
    m_tolerance =
        numberBox("massTolerance", tr("Masses should agree within"), 0.1, 50.0, 1, QStringLiteral(" %"));
    m_tolerance->setFixedWidth(80);
    auto *top = new QHBoxLayout;
    top->addWidget(m_headline, 1);
    top->addWidget(new QLabel(tr("within ±")));
    top->addWidget(m_tolerance);
    layout->addLayout(top);
    m_chart = new MassChart(session);
    layout->addWidget(m_chart);
    m_rails = new QGridLayout;
    m_rails->setHorizontalSpacing(16);
    m_rails->setVerticalSpacing(6);
    m_rails->setColumnStretch(4, 1);
    layout->addLayout(m_rails);
    layout->addWidget(heading(tr("What moved together with the factors")));
    m_confounds = new QLabel;
    m_confounds->setObjectName(QStringLiteral("loggedConfounds"));
    m_confounds->setWordWrap(true);
    m_confounds->setTextInteractionFlags(Qt::TextSelectableByMouse);
    layout->addWidget(m_confounds);
    layout->addStretch(1);
    connect(m_tolerance, &QDoubleSpinBox::valueChanged, this, [this](double percent) {
        m_session.tryEdit(tr("tolerance of masses"), [percent](Study &study) {
            study.log.measuring.massTolerance = percent / 100.0;
            return ok();
        });
    });
    connect(&session, &ProjectSession::selectionChanged, m_chart, qOverload<>(&QWidget::update));
}

void MassPage::refresh()
{
    const Study *study = m_session.study();
    if (study == nullptr)
        return;
    const MassCheck check = checkMass(*study, m_session.workshop());
    showValue(m_tolerance, 100.0 * check.tolerance);
    m_headline->setText(QString::fromStdString(check.headline));
    m_headline->setProperty("role", check.isConfound ? QStringLiteral("warning") : QString());
    m_headline->style()->unpolish(m_headline);
    m_headline->style()->polish(m_headline);
    m_chart->set(check);
    const bool isWeighed = std::any_of(check.rails.begin(), check.rails.end(),
                                       [](const RailMass &rail) { return rail.mass_g.n > 0; });
    m_chart->setVisible(isWeighed);
    if (isWeighed)
        refreshTable(check);
    else
        clearLayout(m_rails);
    QStringList confounds;
    for (const Confound &confound : settingConfounds(*study, &m_session.readings()))
        confounds << QStringLiteral("• ") + QString::fromStdString(confound.sentence);
    if (confounds.isEmpty())
        confounds << tr("Nothing that is known moved together with a factor.");
    confounds << QString::fromStdString(lookedAtSentence(*study, &m_session.readings()));
    m_confounds->setText(confounds.join(QLatin1Char('\n')));
}

void MassPage::refreshTable(const MassCheck &check)
{
    clearLayout(m_rails);
    const Study &study = *m_session.study();
    const Notation &notation = m_session.notation();
    const Property property = usualProperty(methodOf(study));
    const std::optional<StudyComparison> perGram = property.scale == inchpeg::Scale::Ratio
                                                       ? comparePerMass(study, m_session.readings(), property)
                                                       : std::nullopt;
    const QString titles[] = {tr("Rail"), tr("Mean"), tr("Scatter"), tr("Void share"), tr("What it says")};
    for (int c = 0; c < 5; ++c)
        m_rails->addWidget(softLabel(titles[c]), 0, c);
    for (std::size_t r = 0; r < check.rails.size(); ++r) {
        const RailMass &rail = check.rails[r];
        const int row = static_cast<int>(r) + 1;
        const auto put = [&](int column, const QString &text, bool number) {
            auto *label = new QLabel(text);
            label->setWordWrap(!number);
            const Qt::Alignment side = number        ? Qt::AlignRight | Qt::AlignTop
                                       : column == 0 ? Qt::AlignLeft | Qt::AlignTop
                                                     : Qt::AlignTop;
            m_rails->addWidget(label, row, column, side);
            return label;
        };
        put(0, QString::fromStdString(railTitle(study, study.conditions[r])), false)->setWordWrap(false);
        put(1,
            rail.mass_g.mean
                ? QString::fromStdString(notation.fixed(*rail.mass_g.mean, 3)) + QStringLiteral(" g")
                : QStringLiteral("–"),
            true);
        put(2,
            rail.mass_g.cv
                ? QString::fromStdString(notation.fixed(100.0 * *rail.mass_g.cv, 1)) + QStringLiteral(" %")
                : QStringLiteral("–"),
            true);
        put(3,
            rail.voidShare
                ? QString::fromStdString(notation.fixed(100.0 * *rail.voidShare, 1)) + QStringLiteral(" %")
                : QStringLiteral("–"),
            true)
            ->setToolTip(QString::fromStdString(rail.voidSource));
        QString sentence = QString::fromStdString(rail.sentence);
        if (perGram)
            sentence += QLatin1Char(' ') + QString::fromStdString(perMassSentence(perGram->rails[r]));
        put(4, sentence.trimmed(), false)->setObjectName(QStringLiteral("massSentence%1").arg(r));
    }
}

} // namespace inchpeg::app
