// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/window/lens_bar.h"

#include "app/parts/form_parts.h"

#include <QButtonGroup>
#include <QHBoxLayout>

namespace inchpeg::app
{

namespace
{

constexpr int kTabPadding = 34;

} // namespace

QString lensTitle(Lens lens)
{
    switch (lens) {
    case Lens::Plan:
        return LensBar::tr("Ask && plan");
    case Lens::Log:
        return LensBar::tr("Log");
    case Lens::Bench:
        return LensBar::tr("Bench");
    case Lens::Read:
        return LensBar::tr("Read");
    case Lens::Compare:
        return LensBar::tr("Compare");
    case Lens::Decide:
        return LensBar::tr("Decide");
    }
    throw ContractViolation("unknown lens");
}

LensBar::LensBar(ProjectSession &session, QWidget *parent) : QWidget(parent), m_session(session)
{
    m_tabs = new QButtonGroup(this);
    auto *layout = new QHBoxLayout(this);
    layout->setContentsMargins(12, 0, 12, 0);
    layout->setSpacing(2);
    for (const Lens lens : kLenses) {
        const int digit = static_cast<int>(lens) + 1;
        auto *tab = button("lens", QStringLiteral("%1  %2").arg(digit).arg(lensTitle(lens)));
        tab->setObjectName(QStringLiteral("lens%1").arg(digit));
        tab->setAccessibleName(lensTitle(lens).replace(QStringLiteral("&&"), QStringLiteral("&")));
        tab->setProperty("lens", true);
        tab->setCheckable(true);
        QFont bold = font();
        bold.setWeight(QFont::DemiBold);
        tab->setMinimumWidth(QFontMetrics(bold).horizontalAdvance(tab->text()) + kTabPadding);
        m_tabs->addButton(tab, static_cast<int>(lens));
        layout->addWidget(tab);
    }
    layout->addStretch();
    connect(m_tabs, &QButtonGroup::idClicked, this, [this](int id) {
        m_session.setLens(static_cast<Lens>(id));
        emit chosen();
    });
    refresh();
}

void LensBar::refresh()
{
    for (QAbstractButton *tab : m_tabs->buttons())
        tab->setEnabled(m_session.study() != nullptr);
    if (QAbstractButton *tab = m_tabs->button(static_cast<int>(m_session.lens())))
        tab->setChecked(true);
}

} // namespace inchpeg::app
