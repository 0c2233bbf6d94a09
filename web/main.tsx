document.getElementById('root')!.textContent='Yendra'
